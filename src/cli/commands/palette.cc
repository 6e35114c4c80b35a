#include "job/palette.h"

#include <fmt/format.h>

#include <ostream>

#include "cli/command.h"
#include "cli/json_format.h"
#include "cli/outputs_text.h"
#include "cli/shared_flags.h"
#include "cli/text_table.h"
#include "core/error.h"

namespace chalcedony::cli {
namespace {

constexpr std::uint64_t kMostColors = 64;

void declare_palette(po::options_description& options) {
  add_option<std::string>(options, "colors", "N", "at most so many colors (default 6)");
  add_option<std::string>(options, "apart", "DELTA-E",
                          "no two colors are closer than this (default 8; 0: however close)");
  add_flag(options, "unique", "every color as it is, of pictures with up to 256 of them");
  add_flag(options, "compare",
           "hold the palettes of two pictures against each other: the earth mover's "
           "distance and what moves where");
  add_option<std::string>(options, "apply", "FILE",
                          "repaint the pictures with this palette.json, a text with one CSS color "
                          "a line, or a picture of at most 255 colors");
  add_option<std::string>(options, "distance", "ciede2000|oklab",
                          "in which the nearest color is meant, for --apply (default ciede2000)");
  add_flag(options, "dither", "for --apply: mix colors by spreading what pixels are off");
}

Json do_palette(const po::variables_map& given, const SharedOptions& shared,
                const Context& context) {
  PaletteOptions options;
  options.shared = shared;
  options.unique = given.count("unique") > 0;
  options.compare = given.count("compare") > 0;
  options.dither = given.count("dither") > 0;
  if (options.unique) refuse_options(given, {"colors", "apart"}, "--unique takes every color");
  if (given.count("apply")) {
    refuse_options(given, {"colors", "apart", "unique", "compare"},
                   "--apply brings a palette along");
    options.apply = given["apply"].as<std::string>();
  } else {
    refuse_options(given, {"distance", "dither"}, "it is for --apply");
  }
  if (options.compare && shared.inputs.size() != 2)
    throw UsageError(fmt::format("--compare takes two pictures, not {}", shared.inputs.size()),
                     "give the two whose palettes are to be held against each other");
  options.colors = whole_number("--colors", text_of(given, "colors", "6"), 1, kMostColors);
  if (given.count("apart"))
    options.apart = number_in("--apart", given["apart"].as<std::string>(),
                              {.low = 0, .high = 100, .with_low = true, .with_high = true});
  options.formula = choice_of<DifferenceFormula>(
      "--distance", text_of(given, "distance", "ciede2000"),
      {{"ciede2000", DifferenceFormula::kCiede2000}, {"oklab", DifferenceFormula::kOklab}});
  return run_palette(options, context);
}

void print_colors(const Json& picture, std::ostream& out) {
  out << fmt::format("{}: {} of {}", picture["file"], plural(picture["colors"].size(), "color"),
                     plural(picture["counted"], "pixel"));
  if (picture.contains("sampled"))
    out << fmt::format(" ({} drawn, by --seed)", counted(picture["sampled"]["drawn"]));
  out << "\n";
  print_left_out(picture, out);
  TextTable table({"color", "value", "name", "share", "L", "C", "h", "spread", "nearest", "typical",
                   "on black", "on white"});
  for (const Json& c : picture["colors"])
    table.add({std::to_string(c["index"].get<std::size_t>()), c["color"], c["name"],
               fmt::format("{:.2f} %", c["percent"]), fmt::format("{:.1f}", c["lightness"]),
               fmt::format("{:.1f}", c["chroma"]),
               c["hue"].is_null() ? "" : fmt::format("{:.0f}", c["hue"]),
               fmt::format("{:.1f}", c["spread"]),
               c.contains("nearest")
                   ? fmt::format("{} at {:.1f}", c["nearest"], c["nearest_delta_e"])
                   : "",
               c["typical"], fmt::format("{:.2f}", c["contrast_black"]),
               fmt::format("{:.2f}", c["contrast_white"])});
  table.print(out);
  out << "  L C h: lch, white D50\n";
}

void print_repainted(const Json& picture, std::ostream& out) {
  out << fmt::format("{}: {} repainted; off by {:.2f} delta E on average, 95 % by at most {:.2f}\n",
                     picture["file"], plural(picture["counted"], "pixel"), picture["mean_delta_e"],
                     picture["percentile_95_delta_e"]);
  print_left_out(picture, out);
  TextTable table({"color", "value", "pixels", "share"});
  for (const Json& c : picture["used"])
    table.add({std::to_string(c["index"].get<std::size_t>()), c["color"], counted(c["pixels"]),
               fmt::format("{:.2f} %", c["percent"])});
  table.print(out);
}

void print_comparison(const Json& summary, std::ostream& out) {
  const Json& comparison = summary["comparison"];
  out << fmt::format("earth mover's distance: {:.2f} delta E\n", comparison["distance"]);
  TextTable table({"from", "", "to", "", "share", "delta E"});
  for (const Json& m : comparison["moves"])
    table.add({std::to_string(m["from"].get<std::size_t>()), m["from_color"],
               std::to_string(m["to"].get<std::size_t>()), m["to_color"],
               fmt::format("{:.2f} %", m["percent"]), fmt::format("{:.1f}", m["delta_e"])});
  table.print(out);
}

void print_palette(const Json& summary, std::ostream& out) {
  for (const Json& picture : summary["inputs"])
    picture.contains("used") ? print_repainted(picture, out) : print_colors(picture, out);
  if (summary.contains("comparison")) print_comparison(summary, out);
  print_outputs(summary, out);
}

}  // namespace

extern const Command kPalette;
const Command kPalette{
    "palette",
    "the main colors of a picture, and pictures in the colors of a palette",
    "INPUT...",
    "Finds the main colors of each picture, no two of them so close that eyes take them for one, "
    "with shares, names and contrast ratios, as tables, CSS and swatches. Can repaint pictures "
    "with a palette, and hold two palettes against each other.",
    {{"palette panel-a.png -o out/", "its six main colors, in every form"},
     {"palette panel-a.png panel-b.png --compare --colors 8 -o out/",
      "how far apart the colors of two panels are, and what goes with what"},
     {"palette panel-c.png --apply glass.palette.txt --dither -o out/",
      "a panel in the colors of its glass"}},
    true,
    palette_results,
    declare_palette,
    do_palette,
    print_palette};

}  // namespace chalcedony::cli
