#include "core/tidy/region_steps.h"

#include <algorithm>
#include <map>
#include <numeric>
#include <unordered_map>
#include <vector>

#include "core/region/region_map.h"

namespace chalcedony {
namespace {

void set_run(LabelGrid& grid, const RegionRun& run, Label label) {
  std::fill(grid.row(run.y) + run.begin, grid.row(run.y) + run.end, label);
}

/// Takes the class of all regions for which goes(index) holds.
template <class Goes>
void drop_regions(LabelGrid& grid, const RegionMap& map, const Goes& goes) {
  for (const RegionRun& run : map.runs)
    if (goes(run.part)) set_run(grid, run, 0);
}

/// How many sides of its pixels a region shares with each class.
using Sides = std::map<Label, std::uint32_t>;

void count_sides(const LabelGrid& grid, const RegionRun& run, Sides& sides) {
  const Label* const row = grid.row(run.y);
  if (run.begin > 0) ++sides[row[run.begin - 1]];
  if (run.end < grid.width) ++sides[row[run.end]];
  for (std::uint32_t x = run.begin; x < run.end; ++x) {
    if (run.y > 0) ++sides[row[x - std::ptrdiff_t{grid.width}]];
    if (run.y + 1 < grid.height) ++sides[row[x + grid.width]];
  }
}

/// The class with most sides, of several the lowest.
Label commonest(const Sides& sides) {
  const auto fewer = [](const auto& a, const auto& b) { return a.second < b.second; };
  return std::max_element(sides.begin(), sides.end(), fewer)->first;
}

}  // namespace

void fill_holes(LabelGrid& grid, std::uint64_t most) {
  const RegionMap map = find_regions(grid, Connectivity::kFour, true);
  const auto is_hole = [&](std::uint32_t part) {
    const GridRegion& region = map.regions[part];
    return region.label == 0 && !region.at_edge && region.pixels <= most;
  };
  if (const auto classes = labels_in(grid); classes.size() <= 1) {
    for (const RegionRun& run : map.runs)
      if (is_hole(run.part)) set_run(grid, run, classes.empty() ? 0 : classes[0]);
    return;
  }
  std::unordered_map<std::uint32_t, Sides> sides;
  for (const RegionRun& run : map.runs)
    if (is_hole(run.part)) count_sides(grid, run, sides[run.part]);
  for (const RegionRun& run : map.runs) {
    if (!is_hole(run.part)) continue;
    set_run(grid, run, commonest(sides[run.part]));
  }
}

void drop_small(LabelGrid& grid, std::uint64_t least) {
  const RegionMap map = find_regions(grid, Connectivity::kEight);
  drop_regions(grid, map, [&](std::uint32_t part) { return map.regions[part].pixels < least; });
}

void keep_largest(LabelGrid& grid, std::uint64_t count) {
  const RegionMap map = find_regions(grid, Connectivity::kEight);
  std::vector<std::uint32_t> order(map.regions.size());
  std::iota(order.begin(), order.end(), 0u);
  std::stable_sort(order.begin(), order.end(), [&](std::uint32_t a, std::uint32_t b) {
    return map.regions[a].pixels > map.regions[b].pixels;
  });
  std::unordered_map<Label, std::uint64_t> kept;
  std::vector<bool> stays(map.regions.size());
  for (const std::uint32_t region : order)
    stays[region] = kept[map.regions[region].label]++ < count;
  drop_regions(grid, map, [&](std::uint32_t part) { return !stays[part]; });
}

void clear_edge(LabelGrid& grid) {
  const RegionMap map = find_regions(grid, Connectivity::kEight);
  drop_regions(grid, map, [&](std::uint32_t part) { return map.regions[part].at_edge; });
}

}  // namespace chalcedony
