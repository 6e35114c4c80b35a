#include "cli/text/shares_text.h"
#include "cli/text/parts_text.h"

#include <fmt/format.h>

#include <filesystem>
#include <ostream>
#include <vector>

#include "cli/text/input_names.h"
#include "cli/text/json_format.h"
#include "cli/text/text_table.h"

namespace chalcedony::cli {
namespace {

constexpr int kShareLetters = 5;  // "12.34"; below each other in a table

/// The lowest or the highest share, in so many letters, and where it is.
std::string extreme_text(const Json& range, const std::string& which,
                         const std::map<std::string, std::string>& names, int letters = 0) {
  return fmt::format("{:{}.2f} % in {}", range[which + "_percent"].get<double>(), letters,
                     names.at(range[which + "_file"].get<std::string>()));
}

void add_columns(TextTable& table, const Json& shares, const std::string& of = "counted") {
  table.words("class", "name")
      .counts("pixels", "pixels")
      .percents("share of " + of, "percent")
      .areas(shares.value("unit", "px"));
}

/// The classes of several pictures, with the lowest and the highest share of each in a picture.
void print_with_extremes(const Json& shares, const std::map<std::string, std::string>& names,
                         std::ostream& out, const std::string& of = "counted") {
  const Json rows = class_rows(shares);
  TextTable table(rows);
  add_columns(table, shares, of);
  for (const std::string which : {"lowest", "highest"})
    table.words(which, [which, &names](const Json& row) {
      return row.contains(which + "_file") ? extreme_text(row, which, names, kShareLetters) : "";
    });
  table.print(out);
}

}  // namespace

Json class_rows(const Json& shares) {
  Json rows = shares["classes"];
  if (shares["unclassified"] > 0)
    rows.push_back({{"name", "unclassified"},
                    {"pixels", shares["unclassified"]},
                    {"percent", shares["unclassified_percent"]}});
  return rows;
}

void print_class_shares(const Json& shares, std::ostream& out) {
  const Json rows = class_rows(shares);
  TextTable table(rows);
  add_columns(table, shares);
  table.print(out);
}

void print_class_shares_of_all(const Json& summary, std::ostream& out) {
  if (!summary.contains("together")) return;
  const Json& together = summary["together"];
  out << fmt::format("all {} pictures: {} counted\n", together["pictures"],
                     plural(together["counted"], "pixel"));
  print_with_extremes(together, names_of_inputs(summary), out);
}

void print_region_counts_of_all(const Json& summary, std::ostream& out) {
  if (!summary.contains("together")) return;
  const Json& together = summary["together"];
  out << fmt::format("all {} pictures: {}\n", together["pictures"],
                     plural(together["count"], "region"));
  const std::map<std::string, std::string> names = names_of_inputs(summary);
  TextTable table(together["classes"]);
  table.words("class", "name").counts("regions", "count");
  for (const std::string which : {"fewest", "most"})
    table.words(which, [which, &names](const Json& row) {
      return counted(row[which]) + " in " + names.at(row[which + "_file"].get<std::string>());
    });
  table.print(out);
  if (together.contains("map")) {
    out << "  what their maps have in these\n";
    print_with_extremes(together["map"], names, out, "them");
  }
  print_parts(together, out);
}

void print_selected_shares_of_all(const Json& summary, std::ostream& out) {
  if (!summary.contains("together")) return;
  const Json& together = summary["together"];
  const std::map<std::string, std::string> names = names_of_inputs(summary);
  out << fmt::format("all {} pictures: {} of {} counted pixels selected, {:.2f} %; from {} to {}\n",
                     together["pictures"], counted(together["selected"]),
                     counted(together["counted"]), together["selected_percent"],
                     extreme_text(together, "lowest", names),
                     extreme_text(together, "highest", names));
}

}  // namespace chalcedony::cli
