// The least and the greatest value in a window: erosion and dilation of gray levels.
#ifndef CHALCEDONY_CORE_FILTER_EXTREME_H_
#define CHALCEDONY_CORE_FILTER_EXTREME_H_

#include "core/filter/tile.h"
#include "core/filter/window.h"

namespace chalcedony {

enum class Extreme { kLeast, kGreatest };

/// What a pixel must hold not to take part: above everything, or below it.
float absent_from(Extreme which);

/// The least or greatest value in the window around each pixel.
///
/// Shape     `values` is larger than `out` by the reach on all four sides
/// Cost      a box: in the number of pixels alone; a disk: in its rows
void window_extreme(const Tile& values, Extreme which, const Window& window, Tile& out);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_FILTER_EXTREME_H_
