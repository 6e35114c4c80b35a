// Cleaning by whole regions: holes, specks, the largest ones, those at the edge.
#ifndef CHALCEDONY_CORE_TIDY_REGION_STEPS_H_
#define CHALCEDONY_CORE_TIDY_REGION_STEPS_H_

#include <cstdint>

#include "core/region/label_grid.h"

namespace chalcedony {

// Regions are pixels of one class that touch at sides or corners; holes are pixels without a class
// that touch at sides.

/// Fills holes of at most `most` pixels that do not reach the edge of the picture, with the class
/// that has the longest border to them; of equal ones the one with the lowest number.
void fill_holes(LabelGrid& grid, std::uint64_t most);

/// Regions of fewer than `least` pixels lose their class.
void drop_small(LabelGrid& grid, std::uint64_t least);

/// Of each class only the `count` largest regions stay; of equal ones the first from the top left.
void keep_largest(LabelGrid& grid, std::uint64_t count);

/// Regions that reach the edge of the picture lose their class.
void clear_edge(LabelGrid& grid);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_TIDY_REGION_STEPS_H_
