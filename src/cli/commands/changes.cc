// `chalcedony changes`: what became of the classes of maps of one place, or of many.
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
#include "job/run/partner_files.h"

namespace chalcedony::cli {
namespace {

constexpr std::size_t kMostFlows = 12;  // in the text; the table has all

void declare_changes(po::options_description& options) {
  add_repeated_option(
      options, "then", "MAP|FOLDER",
      "of many places, whose first maps are the inputs: their maps of a later time, "
      "a folder or a pattern that has the one that goes with each; may be repeated, "
      "in the order of time");
  declare_pixel_size(options);
}

void check_maps(const ChangesOptions& options) {
  const std::size_t maps =
      options.then.empty() ? options.shared.inputs.size() : 1 + options.then.size();
  if (maps < 2 || maps > kMostTimedMaps)
    throw UsageError(
        fmt::format("changes takes 2 to {} maps of one place, not {}", kMostTimedMaps, maps),
        "give them in the order of time, or of many places those of later times by --then");
  if (options.then.empty() && (options.shared.resume || options.shared.shard))
    throw UsageError("--resume and --shard need --then here", "give the maps of several places");
  for (const std::filesystem::path& named : options.then)
    require_one_each("--then", named, options.shared.inputs.size());
}

Json do_changes(const po::variables_map& given, const SharedOptions& shared,
                const Context& context) {
  ChangesOptions options;
  options.shared = shared;
  for (const std::string& named : texts_of(given, "then")) options.then.emplace_back(named);
  check_maps(options);
  options.pixel_size = pixel_size_option(given);
  return run_changes(options, context);
}

/// The first line of a step.
std::string step_line(const Json& step, const std::string& unit) {
  std::string line =
      fmt::format("from {} to {}: {} changed, {}", step["from"], step["to"],
                  plural(step["changed"], "pixel"), rough_percent(step["changed_percent"]));
  if (unit != "px") line += fmt::format(", {:.6g} {}\u00b2", step["changed_area"], unit);
  return line;
}

void print_flows(const Json& step, const std::string& unit, std::ostream& out) {
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

void print_place(const Json& place, std::ostream& out) {
  out << fmt::format("{} maps, {} counted\n", place["maps"].size(),
                     plural(place["counted"], "pixel"));
  print_left_out(place, out);
  for (const Json& step : place["steps"]) {
    out << step_line(step, place["unit"]) << '\n';
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
    print_flows(step, place["unit"], out);
  }
}

/// A change in percentage points.
std::string points(const Json& change) { return fmt::format("{:+.2f}", change.get<double>()); }

void print_together(const Json& together, std::ostream& out) {
  out << fmt::format("{} at {} times, {} counted\n", plural(together["places"], "place"),
                     together["times"].size(), plural(together["counted"], "pixel"));
  for (const Json& step : together["steps"]) {
    out << step_line(step, together["unit"])
        << fmt::format("; least {} of {}, most {} of {}\n", rough_percent(step["lowest_percent"]),
                       step["lowest_file"], rough_percent(step["highest_percent"]),
                       step["highest_file"]);
    TextTable(step["classes"])
        .words("class", "name")
        .percents("before", "before_percent")
        .percents("after", "after_percent")
        .cells("change", [](const Json& one) { return points(one["change_percent"]); })
        .cells("95 % limits",
               [](const Json& one) {
                 return one.contains("change_low")
                            ? points(one["change_low"]) + " to " + points(one["change_high"])
                            : std::string();
               })
        .counts("grew in", "grew_in")
        .counts("shrank in", "shrank_in")
        .print(out);
    print_flows(step, together["unit"], out);
  }
}

void print_changes(const Json& summary, std::ostream& out) {
  if (summary.contains("together")) {
    print_together(summary["together"], out);
  } else {
    for (const Json& place : summary["inputs"]) print_place(place, out);
  }
  print_outputs(summary, out);
}

}  // namespace

extern const Command kChanges;
const Command kChanges{
    .name = "changes",
    .summary = "what became of the classes of maps of one place at several times",
    .operands = "FIRST SECOND... | FIRST... --then MAP|FOLDER",
    .purpose =
        "Holds class maps, masks or drawn regions of one place against each other, in the order of "
        "time: how much of each class stayed, was lost and gained, and what became of what. "
        "Classes are the same when their names are. With --then it does so for many places, and "
        "tells how each class went in all of them and how far that can be trusted.",
    .examples =
        {{"changes panel-b.1911.png panel-b.1954.png panel-b.reference.png -o out/",
          "what became of the glass of a panel in two steps"},
         {"changes panel-b.1954.png panel-b.reference.png --region percent:0,50,100,50 "
          "--pixel-size "
          "0.5mm",
          "the lower half only, areas in square millimeters, without writing anything"},
         {"changes panel-a.1911.png panel-b.1911.png panel-c.1911.png --then \"*.1954.png\" --then "
          "\"*.reference.png\" -o out/",
          "three panels at three times"}},
    .results = changes_results,
    .declare = declare_changes,
    .run = do_changes,
    .print = print_changes,
    .refuses = {{"alpha", "hue-floor", "let", "assume", "full-scale", "bands", "page"},
                "changes looks at classes, not at colors"},
};

}  // namespace chalcedony::cli
