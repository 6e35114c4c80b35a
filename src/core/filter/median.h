// The median in a window.
#ifndef CHALCEDONY_CORE_FILTER_MEDIAN_H_
#define CHALCEDONY_CORE_FILTER_MEDIAN_H_

#include "core/filter/tile.h"
#include "core/filter/window.h"

namespace chalcedony {

/// The median of the values around each pixel: the smallest value with at least half of them at or
/// below it. Values that are NaN take no part; where none is left, `out` is NaN.
///
/// Shape     `values` is larger than `out` by the reach on all four sides
/// Cost      8-bit values in a box: in the number of pixels alone; all others: in the rows of the
///           window, small windows in the square of their pixels
void window_median(const Tile& values, const Window& window, Tile& out);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_FILTER_MEDIAN_H_
