#include "job/region/measure.h"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <ostream>
#include <string>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/options/shared_flags.h"
#include "cli/text/json_format.h"
#include "cli/text/map_in_regions_text.h"
#include "cli/text/outputs_text.h"
#include "cli/text/parts_text.h"
#include "cli/text/shares_text.h"
#include "cli/text/text_table.h"
#include "core/error.h"

namespace chalcedony::cli {
namespace {

constexpr std::size_t kRowsShown = 20;

void declare_measure(po::options_description& options) {
  add_option<std::string>(options, "image", "PICTURE|FOLDER",
                          "the picture the regions belong to: adds its colors to the table; of "
                          "several inputs a folder, where pane.png goes with pane.mask.png, or a "
                          "pattern as \"panes/*.png\"");
  add_option<std::string>(options, "channels", "LIST",
                          "channels of --image whose mean, median and standard deviation are "
                          "wanted (default srgb)");
  add_option<std::string>(options, "map", "MAP|FOLDER",
                          "a class map, a mask or a sample file of the same picture: tells what "
                          "each of its classes takes of every region; of several inputs a folder "
                          "or a pattern");
  add_option<std::string>(options, "connect", "4|8",
                          "pixels of a region touch at sides, or at corners too (default 8)");
  declare_pixel_size(options);
  add_flag(options, "outlines", "write the outlines of the regions as sample regions");
  add_flag(options, "parts",
           "count regions that touch one by one: how many there are for each H of the step part of "
           "tidy, and which H to take");
  add_flag(options, "numbers", "write a picture with the number of its region at each pixel");
}

Json do_measure(const po::variables_map& given, const SharedOptions& shared,
                const Context& context) {
  MeasureOptions options;
  options.shared = shared;
  options.connectivity =
      choice_of<Connectivity>("--connect", text_of(given, "connect", "8"),
                              {{"4", Connectivity::kFour}, {"8", Connectivity::kEight}});
  options.image = file_for_each(given, "image", shared);
  if (!options.image)
    refuse_options(given, {"channels", "units", "space", "let", "hue-floor"},
                   "they are of --image");
  options.map = file_for_each(given, "map", shared);
  options.channels = channels_or_space(given, "channels", shared, "srgb");
  options.pixel_size = pixel_size_option(given);
  options.outlines = given.count("outlines") > 0;
  options.parts = given.count("parts") > 0;
  if (options.parts && options.connectivity == Connectivity::kFour)
    throw UsageError(
        "--parts means nothing with --connect 4: tidy parts regions that touch at sides or corners",
        "leave one out");
  options.numbers = given.count("numbers") > 0;
  return run_measure(options, context);
}

/// Areas in pixels are whole, others are not.
void add_area(TextTable& table, const std::string& heading, const char* field,
              const std::string& unit) {
  unit == "px" ? table.counts(heading, field) : table.numbers(heading, field, 6);
}

/// The class of the map that takes most of a region, and how much of it.
std::string main_holding(const Json& region) {
  if (region["map"].empty()) return "";
  const Json& most = region["map"][0];
  return fmt::format("{} {:.1f} %", most["name"].get_ref<const std::string&>(),
                     most["percent"].get<double>());
}

void print_regions(const Json& picture, std::ostream& out) {
  const std::string unit = picture["unit"].get<std::string>();
  const Json& all = picture["largest_regions"];
  const Json regions(all.begin(), all.begin() + std::min(kRowsShown, all.size()));
  TextTable table(regions);
  table.words("region", "region").words("class", "class");
  add_area(table, "area " + unit + "\u00b2", "area", unit);
  table.filled("center", "{:.1f},{:.1f}", {"center/0", "center/1"})
      .filled("box", "{},{},{},{}", {"box/0", "box/1", "box/2", "box/3"})
      .numbers("perimeter " + unit, "perimeter", 6)
      .decimals("round", "roundness", 2)
      .counts("holes", "holes");
  if (!regions.empty() && regions[0].contains("mean_color"))
    table.words("mean color", "mean_color");
  if (picture.contains("map")) table.words("holds most of", main_holding);
  table.print(out);
  const std::size_t count = picture["count"].get<std::size_t>();
  if (count > kRowsShown)
    out << fmt::format("  these are the largest; {} more are in the table\n",
                       counted(count - kRowsShown));
}

void print_measure(const Json& summary, std::ostream& out) {
  for (const Json& p : summary["inputs"]) {
    const std::string unit = p["unit"].get<std::string>();
    out << fmt::format("{}: {}, {}\n", p["file"], p["kind"], plural(p["count"], "region"));
    if (p.contains("pixel_size"))
      out << fmt::format("  a pixel is {:.4g} {} wide by the resolution of {}\n",
                         p["pixel_size"]["side"], unit, p["pixel_size"]["from"]);
    TextTable classes(p["classes"]);
    classes.words("class", "name").counts("regions", "count");
    add_area(classes, "area " + unit + "\u00b2", "area", unit);
    classes.percents("share of all", "percent").numbers("mean", "mean", 6);
    add_area(classes, "median", "median", unit);
    add_area(classes, "largest", "largest", unit);
    classes.numbers("d10 " + unit, "diameter_10", 4)
        .numbers("d50", "diameter_50", 4)
        .numbers("d90", "diameter_90", 4);
    classes.print(out);
    print_map_in_regions(p, out);
    print_parts(p, out);
    print_regions(p, out);
  }
  print_region_counts_of_all(summary, out);
  print_outputs(summary, out);
}

}  // namespace

extern const Command kMeasure;
const Command kMeasure{
    .name = "measure",
    .summary = "the connected regions of masks and class maps: size, place, shape, color",
    .operands = "INPUT... [--image PICTURE|FOLDER] [--map MAP|FOLDER]",
    .purpose =
        "Finds the regions of a mask, a class map or a sample file and measures each: area, "
        "center, box, perimeter, roundness, axes, holes; with --image its colors too, and with "
        "--map what each class takes of it. Things that touch are counted one by one with --parts. "
        "Outlines can be written as sample regions, to "
        "be corrected and trained with.",
    .examples =
        {{"measure panel-b.1911.png --image panel-b.png --map panel-b.reference.png -o out/",
          "every pane of 1911: its mean color today, and the glass it has now"},
         {"measure beads.reference.png --parts -o out/",
          "beads that touch, counted one by one, and how to part them"},
         {"measure panel-a.reference.png --pixel-size 0.5mm --connect 4 --outlines --image "
          "panel-a.png "
          "--channels lab.l,oklch.h -o out/",
          "areas in square millimeters, with lightness and hue, and outlines as sample regions"}},
    .results = measure_results,
    .declare = declare_measure,
    .run = do_measure,
    .print = print_measure,
    .refuses = {{"region", "within"}, "measure takes whole masks and class maps"},
    .traits = {Trait::kQuotesValues, Trait::kNamesChannels},
};

}  // namespace chalcedony::cli
