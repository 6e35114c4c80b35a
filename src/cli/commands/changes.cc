// `chalcedony changes`: what became of the classes of maps of one place.
#include "job/change/changes.h"

#include <fmt/format.h>

#include <algorithm>
#include <ostream>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "cli/text/text_table.h"
#include "core/error.h"
#include "job/change/timed_maps.h"

namespace chalcedony::cli {
namespace {

constexpr std::size_t kMostFlows = 12;  // in the text; the table has all

void declare_changes(po::options_description& options) { declare_pixel_size(options); }

Json do_changes(const po::variables_map& given, const SharedOptions& shared,
                const Context& context) {
  if (shared.inputs.size() < 2 || shared.inputs.size() > kMostTimedMaps)
    throw UsageError(fmt::format("changes takes 2 to {} maps of one place, not {}", kMostTimedMaps,
                                 shared.inputs.size()),
                     "give them in the order of time");
  ChangesOptions options;
  options.shared = shared;
  options.pixel_size = pixel_size_option(given);
  return run_changes(options, context);
}

void print_step(const Json& step, const std::string& unit, std::ostream& out) {
  out << fmt::format("from {} to {}: {} changed, {}", step["from"], step["to"],
                     plural(step["changed"], "pixel"), rough_percent(step["changed_percent"]));
  if (unit != "px") out << fmt::format(", {:.6g} {}\u00b2", step["changed_area"], unit);
  out << '\n';
  Json classes = Json::array();
  for (const Json& one : step["classes"])
    if (one["before"] > 0 || one["after"] > 0) classes.push_back(one);
  TextTable(classes)
      .words("class", "name")
      .counts("before", "before")
      .counts("after", "after")
      .counts("stayed", "stayed")
      .counts("lost", "lost")
      .counts("gained", "gained")
      .print(out);
  if (step["flows"].empty()) return;
  Json flows = Json::array();
  for (std::size_t i = 0; i < std::min(kMostFlows, step["flows"].size()); ++i)
    flows.push_back(step["flows"][i]);
  TextTable(flows)
      .words("was", "from")
      .words("is", "to")
      .counts("pixels", "pixels")
      .percents("share", "percent")
      .areas(unit)
      .print(out);
  if (flows.size() < step["flows"].size())
    out << fmt::format("  {} more are in the table\n", step["flows"].size() - flows.size());
}

void print_changes(const Json& summary, std::ostream& out) {
  const Json& first = summary["inputs"][0];
  out << fmt::format("{} maps, {} counted\n", summary["inputs"].size(),
                     plural(first["counted"], "pixel"));
  print_left_out(first, out);
  for (const Json& step : summary["steps"]) print_step(step, first["unit"], out);
  print_outputs(summary, out);
}

}  // namespace

extern const Command kChanges;
const Command kChanges{
    .name = "changes",
    .summary = "what became of the classes of maps of one place at several times",
    .operands = "FIRST SECOND...",
    .purpose =
        "Holds class maps or masks of one place against each other, in the order of time: how much "
        "of each class stayed, was lost and gained, and what became of what. Classes are the same "
        "when their names are.",
    .examples =
        {{"changes panel-b.1911.png panel-b.1954.png panel-b.reference.png -o out/",
          "what became of the glass of a panel in two steps"},
         {"changes panel-b.1954.png panel-b.reference.png --pixel-size 0.5mm",
          "areas in square millimeters, without writing anything"},
         {"changes panel-b.1911.png panel-b.reference.png --region percent:0,50,100,50 -o out/",
          "the lower half only"}},
    .results = changes_results,
    .declare = declare_changes,
    .run = do_changes,
    .print = print_changes,
    .refuses = {{"alpha", "hue-floor", "let", "assume", "full-scale", "bands", "page"},
                "changes looks at classes, not at colors"},
    .traits = {Trait::kJoinsInputs},
};

}  // namespace chalcedony::cli
