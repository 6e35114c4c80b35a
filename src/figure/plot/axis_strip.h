// A strip along an axis that shows what the values of a channel look like.
#ifndef CHALCEDONY_FIGURE_PLOT_AXIS_STRIP_H_
#define CHALCEDONY_FIGURE_PLOT_AXIS_STRIP_H_

#include "core/channel/channel.h"
#include "figure/plot/plot.h"

namespace chalcedony {

/// Draws the colors of values from low to high into a box. False, and nothing is drawn, for a
/// channel without example colors.
bool draw_axis_strip(Plot& plot, const Box& box, const Channel& channel, double low, double high);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_PLOT_AXIS_STRIP_H_
