#include "cli/text/parts_text.h"

#include <fmt/format.h>

#include <string>

#include "cli/text/json_format.h"
#include "cli/text/text_table.h"

namespace chalcedony::cli {
namespace {

/// "part 1.8", which makes so many of the regions of a class.
std::string step_text(const Json& parts) {
  return parts["part"].is_null() ? "-" : fmt::format("part {}", parts["part"].get<double>());
}

/// No H keeps to the ranges of pictures that differ much.
std::string range_text(const Json& parts) {
  const double above = parts["above"].get<double>(), to = parts["to"].get<double>();
  return above < to ? fmt::format("{:.2f} to {:.2f}", above, to) : "none for all pictures";
}

}  // namespace

void print_parts(const Json& classes, std::ostream& out) {
  Json rows = Json::array();
  for (const Json& one : classes)
    if (one.contains("parts")) rows.push_back(one);
  if (rows.empty()) return;
  TextTable(rows)
      .words("class", "name")
      .counts("regions", "count")
      .counts("parted", "parts/regions")
      .words("step", [](const Json& row) { return step_text(row["parts"]); })
      .words("so for H in pixels", [](const Json& row) { return range_text(row["parts"]); })
      .print(out);
}

}  // namespace chalcedony::cli
