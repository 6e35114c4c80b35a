// `chalcedony sheet`: a picture and its planes on one page.
#include "job/look/sheet.h"

#include <fmt/format.h>

#include <ostream>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/text/channel_text.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "cli/text/text_table.h"
#include "core/error.h"

namespace chalcedony::cli {
namespace {

constexpr std::size_t kMostPlanes = 23;

void declare_sheet(po::options_description& options) {
  add_option<std::string>(
      options, "channels", "A,B,...",
      "the planes to show: channels or whole spaces (default the picture's own)");
  add_flag(options, "tint", "show each plane in colors like the values it holds, not in gray");
  add_flag(options, "stretch-view",
           "for looking only: show each plane from its own 1 % point as black to its "
           "99 % point as white; no picture is changed");
}

Json do_sheet(const po::variables_map& given, const SharedOptions& shared, const Context& context) {
  SheetOptions options;
  options.shared = shared;
  if (shared.output.empty())
    throw UsageError("sheet needs -o", "name the folder for the page, as in -o out/");
  options.channels = channels_or_space(given, "channels", shared, "");
  if (options.channels.size() > kMostPlanes)
    throw UsageError(
        fmt::format("--channels: {} planes are too many for one page", options.channels.size()),
        fmt::format("show up to {} at once", kMostPlanes));
  options.tint = given.count("tint") > 0;
  options.stretch_view = given.count("stretch-view") > 0;
  return run_sheet(options, context);
}

void print_sheet(const Json& summary, std::ostream& out) {
  for (const Json& p : summary["inputs"]) {
    out << p["file"].get<std::string>() << '\n';
    print_left_out(p, out);
    TextTable(p["planes"])
        .channels("plane", "channel")
        .numbers_by_row({{"black", "black"}, {"white", "white"}})
        .print(out);
  }
  print_outputs(summary, out);
}

}  // namespace

extern const Command kSheet;
const Command kSheet{
    .name = "sheet",
    .summary = "a picture and its planes side by side",
    .operands = "INPUT... -o FOLDER",
    .purpose =
        "Draws a page for each picture: the picture and its planes, in gray, each with its name "
        "and the values that are black and white. Shows at a glance which parts are bright in "
        "which plane.",
    .examples = {{"sheet panel-a.png -o out/", "the picture beside its r, g and b"},
                 {"sheet panel-a.png --channels hsv,lab -o out/", "six planes of two spaces"},
                 {"sheet panel-d.png --channels oklch --tint --stretch-view -o out/",
                  "planes in their own colors, stretched for viewing"}},
    .results = sheet_results,
    .declare = declare_sheet,
    .run = do_sheet,
    .print = print_sheet,
    .traits = {Trait::kNamesChannels},
};

}  // namespace chalcedony::cli
