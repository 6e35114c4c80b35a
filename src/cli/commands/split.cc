// `chalcedony split`: the planes of a picture as gray pictures.
#include "job/prepare/split.h"

#include <fmt/format.h>

#include <ostream>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "core/error.h"

namespace chalcedony::cli {
namespace {

void declare_split(po::options_description& options) {
  add_option<std::string>(
      options, "channels", "A,B,...",
      "the planes to write: channels or whole spaces (default the picture's own)");
  add_option<std::string>(options, "depth", "8|16|float",
                          "bits of a sample (default as the picture for r g b, 16 for planes that "
                          "are not 0-255)");
}

Json do_split(const po::variables_map& given, const SharedOptions& shared, const Context& context) {
  SplitOptions options;
  options.shared = shared;
  if (shared.output.empty())
    throw UsageError("split needs -o", "name the folder for the planes, as in -o planes/");
  options.channels = channels_or_space(given, "channels", shared, "");
  options.depth = depth_option(given);
  return run_split(options, context);
}

void print_split(const Json& summary, std::ostream& out) {
  for (const Json& p : summary["inputs"]) {
    std::string planes;
    for (const Json& plane : p["planes"])
      planes += (planes.empty() ? "" : ", ") + plane["plane"].get<std::string>();
    out << fmt::format("{}: {}\n", p["file"], planes);
    print_left_out(p, out);
  }
  print_outputs(summary, out);
}

}  // namespace

extern const Command kSplit;
const Command kSplit{
    .name = "split",
    .summary = "the planes of a picture as gray pictures",
    .operands = "INPUT... -o FOLDER",
    .purpose =
        "Writes planes of any space as gray pictures: black is the low end of the channel's usual "
        "range, white the high end. Every file says which plane it holds, and join puts planes "
        "together again. A missing hue is written as 0.",
    .examples = {{"split panel-a.png -o planes/", "r, g and b"},
                 {"split panel-a.png --channels hsv -o planes/",
                  "hue, saturation and value with 16 bits"},
                 {"split panel-a.png --channels lab.l,gray --depth 8 -o planes/",
                  "two kinds of lightness with 8 bits"}},
    .results = split_results,
    .declare = declare_split,
    .run = do_split,
    .print = print_split,
    .refuses = {{"figures"}, "split writes pictures; sheet draws them on one page"},
    .traits = {Trait::kNamesChannels},
};

}  // namespace chalcedony::cli
