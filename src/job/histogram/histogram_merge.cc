#include "job/histogram/histogram_merge.h"

#include <algorithm>
#include <cstdint>
#include <map>
#include <string>
#include <vector>

#include "core/error.h"
#include "core/read_number.h"
#include "io/text/csv.h"
#include "job/histogram/histogram.h"
#include "job/histogram/histogram_report.h"
#include "job/repeat/bad_inputs.h"
#include "job/run/results.h"

namespace chalcedony {
namespace {

using Rows = std::vector<std::vector<std::string>>;

/// A kind of table that can be merged.
struct Layout {
  const char* thing;
  const HistogramColumns& columns;
};

Layout layout_of(const Rows& rows, const std::filesystem::path& path) {
  for (const Layout& layout :
       {Layout{"histogram", channel_columns()}, Layout{"joint", joint_columns()}})
    if (!rows.empty() && rows.front() == layout.columns.header) return layout;
  throw InputError("is no table of channel or joint histograms",
                   "give tables that 'chalcedony histogram' wrote", path.string());
}

std::uint64_t count_in(const std::string& text, const std::filesystem::path& path) {
  if (const auto count = read_number<std::uint64_t>(text)) return *count;
  throw InputError("has the count '" + text + "'", "give a table as it was written", path.string());
}

void check_same_bins(const Rows& first, const Rows& next, const Layout& layout,
                     const std::filesystem::path& path) {
  for (std::size_t r = 0; r < std::max(first.size(), next.size()); ++r)
    for (std::size_t c = 0; c < layout.columns.count; ++c)
      if (r >= first.size() || r >= next.size() || first[r][c] != next[r][c])
        throw InputError("has other bins than the first table, in line " + std::to_string(r + 1),
                         "merge tables of the same channels and bins", path.string());
}

/// A table whose layout is one of ours, and whose counts are counts.
Rows read_table(const std::filesystem::path& path) {
  Rows rows = read_csv(path);
  const Layout layout = layout_of(rows, path);
  for (std::size_t r = 1; r < rows.size(); ++r) count_in(rows[r][layout.columns.count], path);
  return rows;
}

/// The names of a row's histogram.
std::string names_of(const std::vector<std::string>& row, const Layout& layout) {
  std::string names;
  for (std::size_t c = 0; c < layout.columns.names; ++c) names += row[c] + "\n";
  return names;
}

}  // namespace

Json merge_histograms(const SharedOptions& options, const Context& context) {
  Results results(options, context, histogram_results(), ResultNames::kRun);
  Json summary = summary_frame("histogram");
  const std::vector<std::size_t> usable =
      usable_inputs(options, context, summary, [](const auto& path) { read_table(path); });
  const std::filesystem::path& front = options.inputs[usable.front()];
  const auto read = [&](const std::filesystem::path& path) {
    return stopped_by_bad(options, [&] { return read_table(path); });
  };
  const Rows first = read(front);
  const Layout layout = layout_of(first, front);
  std::vector<std::uint64_t> counts(first.size());
  for (const std::size_t i : usable) {
    const auto& path = options.inputs[i];
    const Rows rows = read(path);
    check_same_bins(first, rows, layout, path);
    for (std::size_t r = 1; r < rows.size(); ++r)
      counts[r] += count_in(rows[r][layout.columns.count], path);
  }
  std::map<std::string, std::uint64_t> totals;
  for (std::size_t r = 1; r < first.size(); ++r) totals[names_of(first[r], layout)] += counts[r];
  CsvTable table(layout.columns.header);
  for (std::size_t r = 1; r < first.size(); ++r) {
    std::vector<CsvField> row(first[r].begin(),
                              first[r].begin() + static_cast<std::ptrdiff_t>(layout.columns.count));
    row.emplace_back(counts[r]);
    row.emplace_back(percent(counts[r], totals[names_of(first[r], layout)]));
    table.add(row);
  }
  if (!options.output.empty())
    table.write(results.path("merged." + std::string(layout.thing) + ".csv"));
  summary["merged"] = {
      {"tables", usable.size()}, {"kind", layout.thing}, {"pixels", totals.begin()->second}};
  results.report(summary);
  return summary;
}

}  // namespace chalcedony
