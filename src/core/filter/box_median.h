// Medians of 8-bit codes in a box, in a time that does not hang on its size.
#ifndef CHALCEDONY_CORE_FILTER_BOX_MEDIAN_H_
#define CHALCEDONY_CORE_FILTER_BOX_MEDIAN_H_

#include <cstddef>

#include "core/filter/ranked_tile.h"

namespace chalcedony {

/// The largest side of a box whose pixels can be counted.
inline constexpr std::size_t kLargestBoxSide = 255;

/// The median of a box of side x side pixels around each pixel, NaN where nothing is in it. Each
/// column keeps the counts of its part of the box; the box's are the sum of its columns', so moving
/// on takes one column in and one out, whatever their length.
///
/// Shape     `tile`, of codes, is larger than `out` by side - 1 in both directions
/// Range     a side up to kLargestBoxSide
/// Source    Perreault and Hebert (2007), IEEE Transactions on Image Processing 16, 2389-2394
void box_median_of_codes(const RankedTile& tile, std::size_t side, Tile& out);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_FILTER_BOX_MEDIAN_H_
