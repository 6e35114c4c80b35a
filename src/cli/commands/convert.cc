// `chalcedony convert`: a picture in another color space or depth.
#include "job/prepare/convert.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <ostream>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "cli/text/text_table.h"
#include "core/error.h"
#include "core/split_list.h"
#include "io/text/number_text.h"

namespace chalcedony::cli {
namespace {

void declare_convert(po::options_description& options) {
  add_option<std::string>(options, "to", "SPACE",
                          "the space to convert to (default the picture's)");
  add_option<std::string>(options, "depth", "8|16|float",
                          "bits of a sample (default as the picture; float for spaces that are "
                          "not RGB, or 16 in a PNG)");
  add_option<std::string>(options, "gamut", "clip|map",
                          "what becomes of colors that r g b cannot show: each channel is cut off "
                          "(default), or the chroma is reduced, hue and lightness kept");
  add_flag(options, "dither",
           "round to 8 bits up or down at random, so that smooth parts get no steps");
  add_option<std::string>(options, "order", "B,G,R",
                          "the order in which the file has its channels, when it is not the usual "
                          "one: letters of its space, or numbers as in 3,2,1");
  add_option<std::string>(options, "alpha", "keep|drop",
                          "what becomes of an alpha channel (default keep)");
}

/// Where each channel of a picture's space is in the file: its place in the list.
std::array<std::size_t, 3> order_of(const std::string& text) {
  const auto items = split_list(text);
  std::array<std::size_t, 3> from{};
  for (std::size_t c = 0; c < 3; ++c) {
    const std::array<std::string, 2> names{std::string(1, "rgb"[c]), std::to_string(c + 1)};
    const auto found = std::find_first_of(items.begin(), items.end(), names.begin(), names.end());
    if (items.size() != 3 || found == items.end())
      throw UsageError("--order: '" + text + "' does not name three channels once each",
                       "write it as b,g,r or as 3,2,1");
    from[c] = static_cast<std::size_t>(found - items.begin());
  }
  return from;
}

void check(const ConvertOptions& options) {
  if (options.map_gamut && options.to && !options.to->is_rgb)
    throw UsageError(
        "--gamut map is for r g b, and " + std::string(options.to->id) + " holds every color",
        "leave it out");
  if (options.dither && options.depth != SampleType::kU8)
    throw UsageError("--dither is for 8 bits", "add --depth 8");
}

Json do_convert(const po::variables_map& given, const SharedOptions& shared,
                const Context& context) {
  ConvertOptions options;
  options.shared = shared;
  if (given.count("to")) options.to = &space_option("--to", given["to"].as<std::string>());
  options.depth = depth_option(given);
  options.keep_alpha = text_of(given, "alpha", "keep") == "keep";
  options.map_gamut = one_of("--gamut", text_of(given, "gamut", "clip"), {"clip", "map"}) == "map";
  options.dither = given.count("dither") > 0;
  if (given.count("order")) options.order = order_of(given["order"].as<std::string>());
  check(options);
  return run_convert(options, context);
}

void print_convert(const Json& summary, std::ostream& out) {
  for (const Json& p : summary["inputs"]) {
    out << fmt::format("{}: {} to {} ({}), {} x {} pixels, {}\n", p["file"], p["from"], p["to"],
                       p["title"], p["width"], p["height"],
                       p["depth"] == "float" ? "float" : p["depth"].get<std::string>() + "-bit");
    print_left_out(p, out);
    if (p["clipped_before_percent"] > 0)
      out << fmt::format("  {} outside sRGB, clipped to 0-255 before the conversion\n",
                         rough_percent(p["clipped_before_percent"]));
    if (p["out_of_gamut_percent"] > 0)
      out << fmt::format("  {} out of gamut by up to {} of 255{}\n",
                         rough_percent(p["out_of_gamut_percent"]),
                         rounded_text(p["largest_excess"], 3),
                         p["gamut"] == "map" ? ", brought in with less chroma" : "");
  }
  print_outputs(summary, out);
}

}  // namespace

extern const Command kConvert;
const Command kConvert{
    .name = "convert",
    .summary = "a picture in another color space or depth",
    .operands = "INPUT... -o PATH",
    .purpose =
        "Converts pictures between color spaces and depths. Spaces that are not RGB are written as "
        "float TIFF, or as 16-bit PNG when the name ends in .png; the file says which space and "
        "scaling it holds and is read back as that space. With one input, -o names the file; with "
        "several, a folder.",
    .examples = {{"convert panel-a.png --to lab --depth float -o panel-a-lab.tif",
                  "CIE Lab (D50) as floats"},
                 {"convert panel-a.png --to oklch -o panel-a-oklch.png", "OKLCh in a 16-bit PNG"},
                 {"convert panel-a.png panel-b.png --to hsv -o hsv/",
                  "two pictures into a folder"}},
    .declare = declare_convert,
    .run = do_convert,
    .print = print_convert,
    .own_alpha = {"keep", "drop"},
    .refuses = {{"region", "within", "let", "figures", "write"},
                "convert takes whole pictures into a whole space; reframe --crop keeps a part"},
    .traits = {Trait::kDraws},
};

}  // namespace chalcedony::cli
