#include "cli/text/apart_text.h"

#include <fmt/format.h>

#include <map>
#include <ostream>
#include <string>

#include "cli/text/input_names.h"
#include "cli/text/json_format.h"
#include "cli/text/text_table.h"

namespace chalcedony::cli {
namespace {

void print_channels(const Json& apart, std::ostream& out) {
  TextTable table(apart["channels"]);
  table.channels("channel", "channel").percents("overlap of two classes", "overlap_percent", 1);
  if (apart["channels"][0].contains("of_each_percent"))
    table.percents("in each picture", "of_each_percent", 1);
  table.percents("most", "most_alike/overlap_percent", 1)
      .words("of",
             [](const Json& row) {
               const Json& alike = row["most_alike"];
               return fmt::format("{} and {}", alike["first"], alike["second"]);
             })
      .print(out);
}

void add_interval_columns(TextTable& table) {
  table.words("class", "name")
      .counts("pixels", "pixels")
      .words("interval that takes it best", "best/where")
      .percents("of the class", "best/own_percent", 1)
      .percents("of others", "best/others_percent", 1);
}

}  // namespace

void print_classes_apart(const Json& picture, std::ostream& out) {
  print_channels(picture, out);
  TextTable table(picture["classes"]);
  add_interval_columns(table);
  table.print(out);
}

void print_classes_apart_of_all(const Json& summary, std::ostream& out) {
  if (!summary.contains("together")) return;
  const Json& together = summary["together"];
  out << fmt::format("all {} pictures: {} classes\n", together["pictures"],
                     together["classes"].size());
  print_channels(together, out);
  const std::map<std::string, std::string> names = names_of_inputs(summary);
  TextTable table(together["classes"]);
  add_interval_columns(table);
  table
      .words("least of the class",
             [&](const Json& row) {
               if (!row.contains("best")) return std::string();
               const Json& best = row["best"];
               return fmt::format("{:.1f} % in {}", best["lowest_percent"].get<double>(),
                                  names.at(best["lowest_file"].get<std::string>()));
             })
      .print(out);
}

}  // namespace chalcedony::cli
