#include "job/palette/palette.h"

#include <fmt/format.h>

#include <algorithm>
#include <ostream>
#include <string_view>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/options/shared_flags.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "cli/text/text_table.h"
#include "core/error.h"
#include "core/palette/color_vision.h"

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

/// The cones that lack with a deficiency of this name.
std::string_view cones_missing_with(const Json& name) {
  return missing_cones(*std::find_if(
      kVisionDeficiencies.begin(), kVisionDeficiencies.end(),
      [&](ColorVision vision) { return name_of(vision) == name.get<std::string_view>(); }));
}

void print_vision(const Json& vision, std::ostream& out) {
  std::vector<std::string> closest;
  for (const Json& pair : vision["closest"])
    closest.push_back(fmt::format("{} cones: {} and {} at {:.1f}",
                                  cones_missing_with(pair["vision"]), pair["first"], pair["second"],
                                  pair["delta_e"]));
  if (closest.empty()) return;
  out << fmt::format("  closest without {}\n", fmt::join(closest, "; without "));
  for (const Json& pair : vision["alike"])
    out << fmt::format("  {} and {} look alike without {} cones ({}): {:.1f} apart, else {:.1f}\n",
                       pair["first"], pair["second"], cones_missing_with(pair["vision"]),
                       pair["vision"], pair["delta_e"], pair["full_delta_e"]);
  const std::uint64_t pairs = vision["alike_pairs"], told = vision["alike"].size();
  if (pairs > told) out << fmt::format("  and {} more\n", plural(pairs - told, "pair"));
}

void print_colors(const Json& picture, std::ostream& out) {
  out << fmt::format("{}: {} of {}", picture["file"], plural(picture["colors"].size(), "color"),
                     plural(picture["counted"], "pixel"));
  if (picture.contains("sampled"))
    out << fmt::format(" ({} drawn, by --seed)", counted(picture["sampled"]["drawn"]));
  out << "\n";
  print_left_out(picture, out);
  TextTable(picture["colors"])
      .words("color", "index")
      .words("value", "color")
      .words("name", "name")
      .percents("share", "percent")
      .decimals("L", "lightness", 1)
      .decimals("C", "chroma", 1)
      .decimals("h", "hue", 0)
      .decimals("spread", "spread", 1)
      .filled("nearest", "{} at {:.1f}", {"nearest", "nearest_delta_e"})
      .words("typical", "typical")
      .decimals("on black", "contrast_black", 2)
      .decimals("on white", "contrast_white", 2)
      .print(out);
  out << "  L C h: lch, white D50\n";
  print_vision(picture["vision"], out);
}

void print_repainted(const Json& picture, std::ostream& out) {
  out << fmt::format("{}: {} repainted; off by {:.2f} delta E on average, 95 % by at most {:.2f}\n",
                     picture["file"], plural(picture["counted"], "pixel"), picture["mean_delta_e"],
                     picture["percentile_95_delta_e"]);
  print_left_out(picture, out);
  TextTable(picture["used"])
      .words("color", "index")
      .words("value", "color")
      .counts("pixels", "pixels")
      .percents("share", "percent")
      .print(out);
}

void print_comparison(const Json& summary, std::ostream& out) {
  const Json& comparison = summary["comparison"];
  out << fmt::format("earth mover's distance: {:.2f} delta E\n", comparison["distance"]);
  TextTable(comparison["moves"])
      .words("from", "from")
      .words("", "from_color")
      .words("to", "to")
      .words("", "to_color")
      .percents("share", "percent")
      .decimals("delta E", "delta_e", 1)
      .print(out);
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
    .name = "palette",
    .summary = "the main colors of a picture, and pictures in the colors of a palette",
    .operands = "INPUT...",
    .purpose =
        "Finds the main colors of each picture, no two of them so close that eyes take them for "
        "one, with shares, names and contrast ratios, as tables, CSS and swatches. Says which of "
        "them look alike to people with a color-vision deficiency. Can repaint pictures with a "
        "palette, and hold two palettes against each other.",
    .examples = {{"palette panel-a.png -o out/", "its six main colors, in every form"},
                 {"palette panel-a.png panel-b.png --compare --colors 8 -o out/",
                  "how far apart the colors of two panels are, and what goes with what"},
                 {"palette panel-c.png --apply glass.palette.txt --dither -o out/",
                  "a panel in the colors of its glass"}},
    .results = palette_results,
    .declare = declare_palette,
    .run = do_palette,
    .print = print_palette,
    .refuses = {{"hue-floor", "let"}, "palette measures colors, not channels"},
    .traits = {Trait::kDraws},
};

}  // namespace chalcedony::cli
