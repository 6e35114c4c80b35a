// `chalcedony spots`: the colors at places of pictures.
#include "job/spot/spots.h"

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>
#include <ostream>
#include <string>
#include <vector>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/options/shared_flags.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "cli/text/text_table.h"
#include "core/error.h"
#include "core/split_list.h"
#include "job/learn/sample_files.h"
#include "job/run/partner_files.h"

namespace chalcedony::cli {
namespace {

void declare_spots(po::options_description& options) {
  add_repeated_option(options, "samples", "FILE|FOLDER",
                      "spots as GeoJSON or as a picture of labels, each class a spot: one file for "
                      "all pictures, or one for each, called after them or in their order, or a "
                      "folder or a pattern of such");
  add_repeated_option(options, "sample", "NAME=PLACE",
                      "a spot: X,Y (a pixel), X,Y,RADIUS or X,Y,W,H; may be repeated");
  add_option<std::string>(
      options, "layout", "COLUMNSxROWS=X,Y,W,H",
      "spots in even rows that fill this rectangle, or what lies between four corners, clockwise "
      "from the top left, as in \"12x8=56,40 610,62 598,470 40,455\"; called A1, A2, ... from the "
      "top left; the middle third of each is read");
  add_option<std::string>(options, "inner", "PERCENT",
                          "how much of each place of --layout is read, of its width and height "
                          "(default a third)");
  add_flag(options, "apart",
           "regions of one class are spots of their own, as in ruby 1 and ruby 2");
  add_flag(options, "outlines", "write the outlines of the spots as sample regions");
  add_option<std::string>(options, "channels", "LIST",
                          "channels whose mean, median and standard deviation are wanted too");
  add_option<std::string>(options, "to", "PICTURE",
                          "hold the spots against those of this picture (default the first of "
                          "several)");
  add_option<std::string>(options, "known", "FILE",
                          "hold them against colors they should have: a CSV table with a name and "
                          "the three channels of a space in each line; spots of --layout are "
                          "called so, row by row, where there is one for each");
  add_option<std::string>(options, "tolerance", "DELTA-E",
                          "say which spots are farther than this from what they are held against");
  add_option<std::string>(options, "steady", "NAMES",
                          "spots that did not change, as those of a gray card: how much they do "
                          "tells what is light and camera alone");
}

/// The pictures whose spots are read: the inputs, and the one they are held against.
std::vector<std::filesystem::path> pictures_of(const SpotsOptions& options) {
  std::vector<std::filesystem::path> pictures = options.shared.inputs;
  if (options.to && std::find(pictures.begin(), pictures.end(), *options.to) == pictures.end())
    pictures.push_back(*options.to);
  return pictures;
}

PatchPlaces places_of(const po::variables_map& given, const SpotsOptions& options,
                      const Context& context) {
  PatchPlaces places;
  for (const auto& text : texts_of(given, "sample"))
    places.samples.places.push_back(named_value("--sample", text));
  const std::vector<std::string> named = texts_of(given, "samples");
  const std::vector<std::filesystem::path> pictures = pictures_of(options);
  if (named.size() == 1 && names_one_file(named.front())) {
    places.samples.files.assign(pictures.size(), {named.front()});
  } else if (!named.empty()) {
    places.samples.files =
        sample_files_named({named.begin(), named.end()}, pictures, true, *context.ledger);
  }
  if (given.count("layout")) {
    refuse_options(given, {"samples", "sample", "apart"}, "--layout says where the spots are");
    places.layout = layout_option(given["layout"].as<std::string>());
    if (given.count("inner"))
      places.layout->inner = number_in("--inner", given["inner"].as<std::string>(),
                                       {.low = 0, .high = 100, .with_high = true}) /
                             100;
  } else {
    refuse_options(given, {"inner"}, "it is of --layout");
  }
  if (places.empty())
    throw UsageError("spots needs --samples, --sample or --layout", "say where the spots are");
  return places;
}

/// What the spots are held against, and by what a change is measured.
void read_limits(const po::variables_map& given, SpotsOptions& options) {
  if (given.count("to")) options.to = given["to"].as<std::string>();
  if (given.count("known")) {
    refuse_options(given, {"to"}, "--known says what the spots are held against");
    options.known = given["known"].as<std::string>();
  }
  if (given.count("steady")) options.limits.steady = split_list(given["steady"].as<std::string>());
  if (given.count("tolerance"))
    options.limits.tolerance =
        number_in("--tolerance", given["tolerance"].as<std::string>(), {.low = 0, .high = 1000});
}

/// Errors    UsageError when something is asked for that needs more to be named
void check_held(const po::variables_map& given, const SpotsOptions& options) {
  const SharedOptions& shared = options.shared;
  const bool is_named = options.to || options.known, is_held = is_named || shared.inputs.size() > 1;
  for (const char* option : {"steady", "tolerance"})
    if (!is_held && given.count(option))
      throw UsageError("--" + std::string(option) + " needs something to hold the spots against",
                       "give --to, --known or several pictures");
  // What was held against another state of the first picture would be kept, and the first picture
  // of a part of a recipe's pictures is that of no other part.
  if ((shared.resume || shared.shard) && is_held && !is_named)
    throw UsageError("--resume and --shard need --to here",
                     "name the picture that the spots are held against");
}

Json do_spots(const po::variables_map& given, const SharedOptions& shared, const Context& context) {
  SpotsOptions options;
  options.shared = shared;
  read_limits(given, options);
  check_held(given, options);
  options.places = places_of(given, options, context);
  options.apart = given.count("apart") > 0;
  options.outlines = given.count("outlines") > 0;
  options.channels = channels_or_space(given, "channels", shared, "");
  return run_spots(options, context);
}

/// The names of the spots for which this is so.
std::string names_of_spots(const Json& spots, const char* is) {
  std::vector<std::string> names;
  for (const Json& spot : spots)
    if (spot.value(is, false)) names.push_back(spot["name"]);
  return names.empty() ? "none" : fmt::format("{}", fmt::join(names, ", "));
}

void print_picture(const Json& picture, const Json& tolerance, std::ostream& out) {
  const bool is_held = picture.contains("to") && picture["to"] != picture["file"];
  out << fmt::format("{}: {}{}\n", picture["file"], plural(picture["spots"].size(), "spot"),
                     is_held ? ", held against " + picture["to"].get<std::string>() : "");
  TextTable table(picture["spots"]);
  table.words("spot", "name")
      .words("color", "color")
      .counts("pixels", "pixels")
      .decimals("L", "lab/l", 2)
      .decimals("a", "lab/a", 2)
      .decimals("b", "lab/b", 2)
      .decimals("spread", "spread", 1)
      .percents("at full", "full_scale_percent");
  if (is_held)
    table.decimals("delta E", "change/delta_e", 2)
        .decimals("dL", "change/delta_l", 2)
        .decimals("da", "change/delta_a", 2)
        .decimals("db", "change/delta_b", 2)
        .words("change", "change/words");
  table.print(out);
  if (is_held && picture.contains("steady")) {
    out << fmt::format("  steady spots went up to {:.2f}; farther than that: {}\n",
                       picture["steady"].get<double>(),
                       names_of_spots(picture["spots"], "beyond_steady"));
  }
  if (is_held && !tolerance.is_null())
    out << fmt::format("  farther than the tolerance of {:g}: {}\n", tolerance.get<double>(),
                       names_of_spots(picture["spots"], "beyond_tolerance"));
}

/// The channels of --channels, a row for each spot and channel.
void print_figures(const Json& picture, std::ostream& out) {
  Json rows = Json::array();
  for (const Json& spot : picture["spots"])
    for (Json row : spot.value("channels", Json::array())) {
      row["spot"] = spot["name"];
      rows.push_back(std::move(row));
    }
  if (rows.empty()) return;
  TextTable(rows)
      .words("spot", "spot")
      .channels("channel", "channel")
      .numbers_by_row({{"mean", "mean"}, {"median", "median"}, {"sd", "standard_deviation"}})
      .print(out);
}

void print_spots(const Json& summary, std::ostream& out) {
  for (const Json& picture : summary["inputs"]) {
    print_picture(picture, summary.value("tolerance", Json()), out);
    print_figures(picture, out);
  }
  if (!summary["inputs"].empty()) out << "  colors are Lab (D50) of the mean light of a spot\n";
  print_outputs(summary, out);
}

}  // namespace

extern const Command kSpots;
const Command kSpots{
    .name = "spots",
    .summary = "the colors at places of pictures, and how they change from picture to picture",
    .operands =
        "INPUT... --samples FILE|FOLDER | --sample NAME=PLACE | --layout COLUMNSxROWS=X,Y,W,H",
    .purpose =
        "Reads the colors at places: drawn regions, points, or even rows as the wells of a plate "
        "have. The color of a spot is that of its mean light, as an instrument takes it. Of "
        "several pictures it says how far each spot is from that of the same name in the first "
        "picture, or in the one of --to, and which way it went; or how far spots are from colors "
        "they should have. Pictures of one light are compared; correct brings others to known "
        "colors first.",
    .examples =
        {{"spots target.png --layout 5x4=4,4,420,336 --known target.known.csv --tolerance 5 -o "
          "out/",
          "twenty tiles, and which of them are far from the colors they should have"},
         {"spots panel-a.png panel-b.png panel-d.png --samples panel-a.samples.geojson --samples "
          "panel-b.samples.geojson --samples panel-d.samples.geojson --steady lead -o out/",
          "the glass of three panels, and whether it differs more than lead does"},
         {"spots panel-a.png --samples panel-a.samples.geojson --apart --channels lch.c,lch.h",
          "every sample region by itself, with chroma and hue, without writing anything"}},
    .results = spots_results,
    .declare = declare_spots,
    .run = do_spots,
    .print = print_spots,
    .traits = {Trait::kReadsSamples, Trait::kQuotesValues, Trait::kNamesChannels},
};

}  // namespace chalcedony::cli
