#include "core/tidy/region_steps.h"

#include <algorithm>
#include <array>
#include <numeric>
#include <unordered_map>
#include <vector>

#include "core/region/region_map.h"

namespace chalcedony {
namespace {

void set_run(LabelGrid& grid, const RegionRun& run, std::uint8_t label) {
  std::fill(grid.row(run.y) + run.begin, grid.row(run.y) + run.end, label);
}

/// Takes the class of all regions for which goes(index) holds.
template <class Goes>
void drop_regions(LabelGrid& grid, const RegionMap& map, const Goes& goes) {
  for (const RegionRun& run : map.runs)
    if (goes(run.part)) set_run(grid, run, 0);
}

/// Sides that the pixels of a run share with each class.
void count_sides(const LabelGrid& grid, const RegionRun& run,
                 std::array<std::uint32_t, 256>& sides) {
  const std::uint8_t* const row = grid.row(run.y);
  if (run.begin > 0) ++sides[row[run.begin - 1]];
  if (run.end < grid.width) ++sides[row[run.end]];
  for (std::uint32_t x = run.begin; x < run.end; ++x) {
    if (run.y > 0) ++sides[row[x - std::ptrdiff_t{grid.width}]];
    if (run.y + 1 < grid.height) ++sides[row[x + grid.width]];
  }
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
  std::unordered_map<std::uint32_t, std::array<std::uint32_t, 256>> sides;
  for (const RegionRun& run : map.runs)
    if (is_hole(run.part)) count_sides(grid, run, sides[run.part]);
  for (const RegionRun& run : map.runs) {
    if (!is_hole(run.part)) continue;
    const auto& own = sides[run.part];
    set_run(grid, run,
            static_cast<std::uint8_t>(std::max_element(own.begin() + 1, own.end()) - own.begin()));
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
  std::array<std::uint64_t, 256> kept{};
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
