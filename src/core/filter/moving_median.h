// Medians of a window that moves on by a column: what leaves at the left of each of its rows is
// taken out of its counts, what enters at the right put in.
#ifndef CHALCEDONY_CORE_FILTER_MOVING_MEDIAN_H_
#define CHALCEDONY_CORE_FILTER_MOVING_MEDIAN_H_

#include "core/filter/ranked_tile.h"
#include "core/filter/window.h"

namespace chalcedony {

/// The median of the window around each pixel, NaN where nothing is in it.
///
/// Shape     `tile` is larger than `out` by the reach on all four sides
/// Cost      in the rows of the window
/// Source    Huang, Yang and Tang (1979), IEEE Transactions on Acoustics, Speech and Signal
///           Processing 27, 13-18
void moving_median(const RankedTile& tile, const Window& window, Tile& out);

/// The same of a tile of codes, whose medians are sought from one to the next.
void moving_median_of_codes(const RankedTile& tile, const Window& window, Tile& out);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_FILTER_MOVING_MEDIAN_H_
