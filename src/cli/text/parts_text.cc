#include "cli/text/parts_text.h"

#include <fmt/format.h>

#include <string>

#include "cli/text/json_format.h"
#include "cli/text/text_table.h"

namespace chalcedony::cli {
namespace {

/// No H keeps to the ranges of pictures that differ much.
std::string range_text(const Json& parts) {
  const double above = parts["above"].get<double>(), to = parts["to"].get<double>();
  return above < to ? fmt::format("{:.2f} to {:.2f}", above, to) : "none for all pictures";
}

}  // namespace

void print_parts(const Json& told, std::ostream& out) {
  if (!told.contains("parting")) return;
  Json rows = Json::array();
  for (const Json& one : told["classes"])
    if (one.contains("parts")) rows.push_back(one);
  TextTable(rows)
      .words("class", "name")
      .counts("regions", "count")
      .counts("parted", "parts/regions")
      .words("for H in pixels", [](const Json& row) { return range_text(row["parts"]); })
      .print(out);
  const std::string steps = told["parting"].get<std::string>();
  if (!steps.empty()) out << "  tidy --steps \"" << steps << "\"\n";
}

}  // namespace chalcedony::cli
