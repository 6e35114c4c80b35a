// `chalcedony convert`: a picture in another color space or depth.
#include "job/convert.h"

#include <fmt/format.h>

#include <ostream>

#include "cli/command.h"
#include "cli/outputs_text.h"
#include "cli/shared_flags.h"
#include "cli/text_table.h"
#include "core/error.h"

namespace chalcedony::cli {
namespace {

void declare(po::options_description& options) {
  add_option<std::string>(options, "to", "SPACE",
                          "the space to convert to (default the picture's)");
  add_option<std::string>(options, "depth", "8|16|float",
                          "bits of a sample (default as the picture; float for spaces that are "
                          "not RGB, or 16 in a PNG)");
  add_option<std::string>(options, "alpha", "keep|drop",
                          "what becomes of an alpha channel (default keep)");
}

Json run(const po::variables_map& given, const SharedOptions& shared, const Context& context) {
  ConvertOptions options;
  options.shared = shared;
  if (given.count("to"))
    options.to = read_option("--to", [&] { return &space_named(given["to"].as<std::string>()); });
  options.depth = depth_option(given);
  options.keep_alpha = text_of(given, "alpha", "keep") == "keep";
  return run_convert(options, context);
}

void print(const Json& summary, std::ostream& out) {
  for (const Json& p : summary["inputs"]) {
    out << fmt::format("{}: {} to {} ({}), {} x {} pixels, {}\n", p["file"].get<std::string>(),
                       p["from"].get<std::string>(), p["to"].get<std::string>(),
                       p["title"].get<std::string>(), p["width"].get<int>(), p["height"].get<int>(),
                       p["depth"] == "float" ? "float" : p["depth"].get<std::string>() + "-bit");
    print_left_out(p, out);
    if (p["clipped_before_percent"].get<double>() > 0)
      out << fmt::format("  {:.3g} % outside sRGB, clipped to 0-255 before the conversion\n",
                         p["clipped_before_percent"].get<double>());
    if (p["out_of_gamut_percent"].get<double>() > 0)
      out << fmt::format("  {:.3g} % out of gamut by up to {:.3g} of 255\n",
                         p["out_of_gamut_percent"].get<double>(),
                         p["largest_excess"].get<double>());
  }
  print_outputs(summary, out);
}

}  // namespace

extern const Command kConvert;
const Command kConvert{
    "convert",
    "a picture in another color space or depth",
    "INPUT... -o PATH",
    "Converts pictures between color spaces and depths. Spaces that are not RGB are written as "
    "float TIFF, or as 16-bit PNG when the name ends in .png; the file says which space and "
    "scaling it holds and is read back as that space. With one input, -o names the file; with "
    "several, a folder.",
    {{"convert panel-a.png --to lab --depth float -o panel-a-lab.tif", "CIE Lab (D50) as floats"},
     {"convert panel-a.png --to oklch -o panel-a-oklch.png", "OKLCh in a 16-bit PNG"},
     {"convert panel-a.png panel-b.png --to hsv -o hsv/", "two pictures into a folder"}},
    true,
    nullptr,
    declare,
    run,
    print,
    {"keep", "drop"}};

}  // namespace chalcedony::cli
