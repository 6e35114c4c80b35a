// A strip along an axis that shows what the values of a channel look like.
#ifndef CHALCEDONY_FIGURE_PLOT_AXIS_STRIP_H_
#define CHALCEDONY_FIGURE_PLOT_AXIS_STRIP_H_

#include <optional>

#include "core/channel/channel.h"
#include "core/color/css_color.h"
#include "figure/plot/plot.h"

namespace chalcedony {

/// A color with this value in the channel and ordinary values in the others; nothing for channels
/// that do not look like anything by themselves (stored ones, X, Z, x, y).
std::optional<Color> example_color(const Channel& channel, double value);

/// Draws the colors of values from low to high into a box. False, and nothing is drawn, for a
/// channel without example colors.
bool draw_axis_strip(Plot& plot, const Box& box, const Channel& channel, double low, double high);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_PLOT_AXIS_STRIP_H_
