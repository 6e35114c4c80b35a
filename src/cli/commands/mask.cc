// `chalcedony mask`: the pixels a selection takes.
#include "job/mask.h"

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
  add_option<std::string>(options, "where", "SELECTION",
                          "which pixels: tests on channels joined by and, or, not and brackets");
}

Json run(const po::variables_map& given, const SharedOptions& shared, const Context& context) {
  if (!given.count("where"))
    throw UsageError("mask needs --where", "say which pixels, as in --where \"hsv.h in 200..260\"");
  MaskOptions options;
  options.shared = shared;
  try {
    options.where = parse_expression(given["where"].as<std::string>());
  } catch (const UsageError& error) {
    throw at_place(error, "--where");
  }
  return run_mask(options, context);
}

void print(const Json& summary, std::ostream& out) {
  for (const Json& p : summary["inputs"]) {
    out << fmt::format("{}: {} of {} counted pixels selected, {:.2f} %\n",
                       p["file"].get<std::string>(), counted(p["selected"].get<std::uint64_t>()),
                       counted(p["counted"].get<std::uint64_t>()),
                       p["selected_percent"].get<double>());
    print_left_out(p, out);
  }
  print_outputs(summary, out);
}

}  // namespace

extern const Command kMask;
const Command kMask{
    "mask",
    "the pixels a selection takes, as a mask and as a cut-out",
    "INPUT... --where SELECTION",
    "Selects pixels by their channels. An interval holds both its ends; an interval of a hue from "
    "a "
    "higher to a lower value runs through 360. near(COLOR, N) takes the colors within N of "
    "CIEDE2000 "
    "from a CSS color. A pixel without hue passes no test on a hue.",
    {{"mask panel-a.png --where \"hsv.h in 200..260 and hsv.s >= 40\" -o out/", "the blue glass"},
     {"mask panel-b.png --where \"hsv.h in 340..20 and hsv.s > 50\" -o out/", "the red glass"},
     {"mask panel-a.png --where \"near(#d68e18, 15) and not srgb.b > srgb.r\"",
      "how much is like amber, without writing anything"}},
    true,
    mask_results,
    declare,
    run,
    print};

}  // namespace chalcedony::cli
