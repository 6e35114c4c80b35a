#include "cli/text/map_in_regions_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cstdint>
#include <ostream>
#include <string>

#include "cli/text/json_format.h"
#include "cli/text/shares_text.h"
#include "cli/text/text_table.h"

namespace chalcedony::cli {
namespace {

constexpr std::size_t kSharesShown = 40, kKindsShown = 8;

void print_left_over(std::size_t rows, std::ostream& out) {
  if (rows > 0) out << fmt::format("  {} more are in the table\n", counted(rows));
}

/// What the map takes of single regions, a column for each of its classes that they hold most of.
void print_map_by_region(const Json& picture, std::ostream& out) {
  Json rows(picture["classes"].begin(),
            picture["classes"].begin() + std::min(kSharesShown, picture["classes"].size()));
  Json kinds = class_rows(picture["map"]);
  std::stable_sort(kinds.begin(), kinds.end(), [](const Json& a, const Json& b) {
    return a["pixels"].get<std::uint64_t>() > b["pixels"].get<std::uint64_t>();
  });
  TextTable table(rows);
  table.words("region", "name");
  for (std::size_t k = 0; k < std::min(kKindsShown, kinds.size()); ++k) {
    const auto name = kinds[k]["name"].get<std::string>();
    table.cells(name, [name](const Json& row) {
      for (const Json& held : row["map"])
        if (held["name"] == name) return fmt::format("{:.2f} %", held["percent"].get<double>());
      return std::string("0 %");
    });
  }
  table.print(out);
  print_left_over(picture["classes"].size() - rows.size(), out);
}

/// What the map takes of the regions of each class, and between what limits in one of them.
void print_map_by_class(const Json& picture, std::ostream& out) {
  Json rows = Json::array();
  std::size_t left_over = 0;
  for (const Json& of_class : picture["classes"])
    for (const Json& held : of_class["map"]) {
      if (rows.size() == kSharesShown) {
        ++left_over;
        continue;
      }
      rows.push_back(held);
      rows.back()["of"] = of_class["name"];
      rows.back()["of_regions"] = of_class["count"];
    }
  TextTable(rows)
      .words("regions of", "of")
      .words("hold", "name")
      .counts("pixels", "pixels")
      .percents("share of them", "percent")
      .areas(picture["unit"])
      .filled("in regions", "{} of {}", {"regions", "of_regions"})
      .percents("lowest", "lowest_percent")
      .percents("median", "median_percent")
      .percents("highest", "highest_percent")
      .words("in region", "highest_region")
      .print(out);
  print_left_over(left_over, out);
}

}  // namespace

void print_map_in_regions(const Json& picture, std::ostream& out) {
  if (!picture.contains("map")) return;
  out << fmt::format("  what {} has in them\n", picture["map"]["file"]);
  const Json& classes = picture["classes"];
  const bool one_each = std::all_of(classes.begin(), classes.end(),
                                    [](const Json& one) { return one["count"] == 1; });
  (one_each ? print_map_by_region : print_map_by_class)(picture, out);
}

}  // namespace chalcedony::cli
