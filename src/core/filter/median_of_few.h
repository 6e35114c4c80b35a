// The median of windows with few pixels.
#ifndef CHALCEDONY_CORE_FILTER_MEDIAN_OF_FEW_H_
#define CHALCEDONY_CORE_FILTER_MEDIAN_OF_FEW_H_

#include <cstddef>

#include "core/filter/tile.h"
#include "core/filter/window.h"

namespace chalcedony {

/// The most pixels of a window for which this is the quicker way with values of any kind.
inline constexpr std::size_t kFewInWindow = 145;

/// The median around each pixel, of a window with an odd number of pixels, as disks and boxes have.
///
/// Shape     `values` is larger than `out` by the reach on all four sides; none of them is NaN
/// Range     at most kFewInWindow pixels
/// Cost      in the square of the pixels of the window
/// Method    of somewhat more than half of the values neither the least nor the greatest can be the
///           median: both are left out, the next value comes in, until three are left
void median_of_few(const Tile& values, const Window& window, Tile& out);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_FILTER_MEDIAN_OF_FEW_H_
