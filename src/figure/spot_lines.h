// How far spots went from picture to picture, as lines.
#ifndef CHALCEDONY_FIGURE_SPOT_LINES_H_
#define CHALCEDONY_FIGURE_SPOT_LINES_H_

#include <cstddef>
#include <vector>

#include "figure/plot/plot.h"
#include "figure/spot_series.h"

namespace chalcedony {

/// A line for each of these spots in its own color, with its name at the end, over the pictures in
/// their order; below them, where there are steady spots, how far those went.
void draw_spot_lines(Plot& plot, Box body, const SpotSeries& series,
                     const std::vector<std::size_t>& spots);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_SPOT_LINES_H_
