// `chalcedony inspect`: what a picture is, and the statistics of its channels.
#include "job/look/inspect.h"

#include <fmt/format.h>

#include <cmath>
#include <filesystem>
#include <ostream>
#include <vector>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/text/channel_text.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "cli/text/shares_text.h"
#include "cli/text/text_table.h"
#include "core/channel/quoted_channel.h"
#include "core/error.h"
#include "core/split_list.h"
#include "io/text/number_text.h"

namespace chalcedony::cli {
namespace {

void declare_inspect(po::options_description& options) {
  add_option<std::string>(options, "space", "LIST",
                          "the spaces of the statistics (default the picture's own)");
  add_option<std::string>(options, "channels", "LIST",
                          "the channels of the statistics instead; those of --let are always "
                          "among them");
  add_repeated_option(options, "at", "X,Y", "print the values of this pixel; may be repeated");
  add_option<std::string>(options, "values", "X,Y,W,H",
                          "print the values of these pixels, up to 32x32, one grid a channel");
  add_option<std::string>(options, "grid", "FILE",
                          "draw the picture under a grid of its coordinates (.png, .svg or .pdf)");
}

/// The channels of --channels, else of the spaces of --space; of one space they may be named
/// without it.
void read_channels(const po::variables_map& given, InspectOptions& options) {
  ChannelNames& names = options.shared.names;
  std::vector<const Space*> spaces;
  if (given.count("space"))
    for (const std::string& name : split_list(given["space"].as<std::string>()))
      spaces.push_back(&space_option("--space", name));
  if (spaces.size() == 1) names.bare_space = spaces.front();
  if (given.count("channels")) {
    options.channels =
        channels_option("--channels", given["channels"].as<std::string>(), options.shared);
    return;
  }
  for (const Space* space : spaces)
    for (const Channel& channel : channels_of(*space)) options.channels.push_back(channel);
}

Json do_inspect(const po::variables_map& given, const SharedOptions& shared,
                const Context& context) {
  InspectOptions options;
  options.shared = shared;
  read_channels(given, options);
  for (const auto& text : texts_of(given, "at")) options.at.push_back(point_in("--at", text));
  if (given.count("values"))
    options.values =
        read_option("--values", [&] { return parse_region(given["values"].as<std::string>()); });
  if (given.count("grid")) {
    if (shared.inputs.size() > 1) throw UsageError("--grid names one file", "give one picture");
    options.grid = given["grid"].as<std::string>();
  }
  return run_inspect(options, context);
}

std::string file_name(const Json& picture) {
  return std::filesystem::path(picture["file"]).filename().string();
}

/// The channels of some pictures one after the other. A hue shows its circular mean and spread.
Json channel_rows(const std::vector<const Json*>& pictures) {
  Json rows = Json::array();
  for (const Json* const picture : pictures)
    for (Json row : (*picture)["channels"]) {
      row["picture"] = file_name(*picture);
      if (row.contains("no_hue")) {
        row["mean"] = row["circular_mean"];
        row["standard_deviation"] = row["circular_spread"];
      }
      rows.push_back(std::move(row));
    }
  return rows;
}

/// A row for each channel of some pictures; of several with the picture's name.
void print_channels(const std::vector<const Json*>& pictures, std::ostream& out) {
  const bool named = pictures.size() > 1;
  const Json rows = channel_rows(pictures);
  TextTable table(rows);
  if (named) table.words("picture", "picture");
  table.channels("channel", "channel")
      .numbers_by_row({{"min", "minimum"},
                       {"1%", "percentile_1"},
                       {"5%", "percentile_5"},
                       {"25%", "percentile_25"},
                       {"median", "median"},
                       {"75%", "percentile_75"},
                       {"95%", "percentile_95"},
                       {"99%", "percentile_99"},
                       {"max", "maximum"}})
      .numbers_by_row({{"mean", "mean"}, {"sd", "standard_deviation"}})
      .percents("at low", "at_low_percent")
      .percents("at high", "at_high_percent")
      .print(out);
  for (const Json& row : rows) {
    const std::string of =
        (named ? row["picture"].get<std::string>() + ", " : "") + row["channel"].get<std::string>();
    if (row.contains("no_hue"))
      out << fmt::format("  {}: circular mean and spread; {} without hue\n", of,
                         plural(row["no_hue"], "pixel"));
    if (row.contains("no_value"))
      out << fmt::format("  {}: {} without a value\n", of, plural(row["no_value"], "pixel"));
  }
}

/// To four digits, codes in full.
std::string reading(const Space* space, const Json& json) {
  if (json.is_null()) return "none";
  const double value = without_noise(space, json);
  return rounded_text(value, 4);
}

/// A color in several spaces.
void print_color(const std::string& of, const Json& color, std::ostream& out) {
  out << fmt::format("  {}  {}\n", of, color["css"]);
  for (const char* space : {"srgb", "hsv", "lab", "oklch"}) {
    std::string values;
    for (const auto& [name, value] : color[space].items())
      values += "  " + name + " " + reading(find_space(space), value);
    out << fmt::format("    {:<6}{}{}\n", space, values,
                       std::string_view(space) == "lab" ? "  (white D50)" : "");
  }
}

/// Which says of what it is the mean: the mean of other numbers would be another color.
void print_mean_color(const Json& picture, std::ostream& out) {
  std::string of = "mean";
  const Space& space = *find_space(picture["space"].get<std::string>());
  for (std::size_t c = 0; c < space.channel_count; ++c)
    of += " " + std::string(space.channels[c].name);
  print_color(of + " of " + plural(picture["counted"], "pixel"), picture["mean_color"], out);
}

/// The values at a point that its color does not show, the channels of a space in one line.
void print_beside(const Json& channels, std::ostream& out) {
  std::string line, space_of_line;
  for (const auto& [name, value] : channels.items()) {
    const Space* const space = space_in(name);
    const std::size_t dot = name.find('.');
    const std::string of = space && dot != std::string::npos ? name.substr(0, dot) : name;
    if (of != space_of_line) {
      if (!line.empty()) out << line << '\n';
      line = fmt::format("    {:<6}", of);
      space_of_line = of;
    }
    line += (of == name ? "  " : "  " + name.substr(dot + 1) + " ") + reading(space, value);
  }
  out << line << '\n';
}

void print_points(const Json& picture, std::ostream& out) {
  for (const Json& point : picture["at"]) {
    std::string what = fmt::format("pixel {},{}", point["x"], point["y"]);
    if (point.contains("class"))
      what +=
          " (" + (point["class"] == "" ? "unclassified" : point["class"].get<std::string>()) + ")";
    if (point.contains("css")) {
      print_color(what, point, out);
    } else {
      out << "  " << what << '\n';
    }
    if (point.contains("channels")) print_beside(point["channels"], out);
  }
}

/// Of a class map.
void print_colored_classes(const Json& picture, std::ostream& out) {
  const Json rows = class_rows(picture);
  TextTable(rows)
      .words("class", "name")
      .words("color", "color")
      .counts("pixels", "pixels")
      .percents("share", "percent")
      .print(out);
}

/// Rows and columns are headed by their pixel coordinates.
void print_values(const Json& values, std::ostream& out) {
  const auto left = values["x"].get<std::uint64_t>(), top = values["y"].get<std::uint64_t>();
  for (const Json& grid : values["grids"]) {
    const Space* const space = space_in(grid["channel"]);
    std::uint64_t y = top;
    TextTable table(grid["rows"]);
    table.words(grid["channel"], [&](const Json&) { return std::to_string(y++); });
    for (std::size_t x = 0; x < grid["rows"][0].size(); ++x)
      table.cells(std::to_string(left + x),
                  [&](const Json& row) { return reading(space, row[x]); });
    table.print(out);
  }
}

void print_inspect(const Json& summary, std::ostream& out) {
  std::vector<const Json*> pictures;
  for (const Json& p : summary["inputs"]) pictures.push_back(&p);
  for (const Json& p : summary["inputs"]) {
    out << p["file"].get<std::string>() << '\n';
    out << fmt::format("  {}, {} x {} pixels, {}, {}-bit{}\n", p["format"], p["width"], p["height"],
                       p["layout"], p["bits"], p["float"].get<bool>() ? " float" : "");
    if (p.contains("pages"))
      out << fmt::format("  picture {} of the {} in the file\n", p["page"], p["pages"]);
    out << fmt::format("  space {} ({}), {}\n", p["space"], p["space_title"], p["space_from"]);
    out << fmt::format("  alpha {}, orientation {}\n", p["alpha"], p["orientation"]);
    if (p.contains("distinct_colors"))
      out << fmt::format("  {}\n", plural(p["distinct_colors"], "distinct color"));
    if (p.contains("distinct_colors_above"))
      out << fmt::format("  more than {}\n", plural(p["distinct_colors_above"], "distinct color"));
    for (const Json& finding : p["findings"])
      out << "  note: " << finding.get<std::string>() << '\n';
    out << fmt::format("  {} counted\n", plural(p["counted"], "pixel"));
    print_left_out(p, out);
    if (p.contains("classes")) print_colored_classes(p, out);
    if (pictures.size() == 1) print_channels(pictures, out);
    if (p.contains("mean_color")) print_mean_color(p, out);
    if (p.contains("at")) print_points(p, out);
    if (p.contains("values")) print_values(p["values"], out);
  }
  if (pictures.size() > 1) print_channels(pictures, out);
  print_outputs(summary, out);
}

}  // namespace

extern const Command kInspect;
const Command kInspect{
    .name = "inspect",
    .summary = "what a picture is, and the statistics of its channels",
    .operands = "INPUT...",
    .purpose =
        "Shows what a file is (size, format, depth, alpha, color space and where that was learned) "
        "and the statistics of its channels over the counted pixels: exact nearest-rank "
        "percentiles, mean, standard deviation, and the shares at the ends of the range. Look here "
        "first.",
    .examples =
        {{"inspect panel-a.png --values 236,178,8,4 --grid grid.png",
          "the file and its r, g and b, the numbers of a few pixels, and the picture under its "
          "coordinates"},
         {"inspect panel-a.png --space hsv,lab --region 100,80,60,40",
          "hue, saturation and value, and Lab, of a part"},
         {"inspect panel-a.png panel-d.png --at 240,180 --units unit -o looked/",
          "two pictures, one pixel of each in several spaces, and the statistics as CSV, on 0-1"}},
    .results = inspect_results,
    .declare = declare_inspect,
    .run = do_inspect,
    .print = print_inspect,
    .refuses = {{"figures"}, "inspect draws none; histogram and sheet do"},
    .traits = {Trait::kQuotesValues},
};

}  // namespace chalcedony::cli
