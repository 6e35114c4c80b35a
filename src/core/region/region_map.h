// All regions of a label grid with the runs they are made of.
#ifndef CHALCEDONY_CORE_REGION_REGION_MAP_H_
#define CHALCEDONY_CORE_REGION_REGION_MAP_H_

#include <cstdint>
#include <vector>

#include "core/region/label_grid.h"
#include "core/region/run_linker.h"

namespace chalcedony {

struct GridRegion {
  Label label = 0;
  std::uint64_t pixels = 0;
  bool at_edge = false;  // touches the edge of the picture
};

struct RegionMap {
  std::vector<GridRegion> regions;  // in the order of their first pixels
  std::vector<RegionRun> runs;      // from the top left; `part` is an index of `regions`
};

/// The connected regions of equal labels; with `with_zero` those without a label too.
RegionMap find_regions(const LabelGrid& grid, Connectivity connectivity, bool with_zero = false);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_REGION_REGION_MAP_H_
