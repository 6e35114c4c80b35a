#include "core/region/region_map.h"

namespace chalcedony {

RegionMap find_regions(const LabelGrid& grid, Connectivity connectivity, bool with_zero) {
  RegionMap map;
  RunLinker linker(grid.width, connectivity, with_zero);
  for (std::uint32_t y = 0; y < grid.height; ++y) {
    const auto& runs = linker.add_row(grid.row(y));
    map.runs.insert(map.runs.end(), runs.begin(), runs.end());
  }
  const std::vector<std::uint32_t> numbers = linker.region_numbers();
  for (RegionRun& run : map.runs) {
    run.part = numbers[run.part];
    if (run.part == map.regions.size()) map.regions.push_back({run.label, 0, false});
    GridRegion& region = map.regions[run.part];
    region.pixels += run.end - run.begin;
    region.at_edge |=
        run.y == 0 || run.y + 1 == grid.height || run.begin == 0 || run.end == grid.width;
  }
  return map;
}

}  // namespace chalcedony
