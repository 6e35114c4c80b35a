// The heat ramp as gnuplot's palette.
#ifndef CHALCEDONY_FIGURE_PLOT_HEAT_SCALE_H_
#define CHALCEDONY_FIGURE_PLOT_HEAT_SCALE_H_

#include <cstdint>

#include "figure/plot/plot.h"

namespace chalcedony {

/// Colors of the figure that follow are taken from the heat ramp.
void set_heat_scale(Plot& plot);

/// Where on the heat ramp so many pixels stand, from 0 (none) to 1, when a bin holds `highest` at
/// most: by the logarithm or linear.
double heat_of_count(std::uint64_t pixels, std::uint64_t highest, bool linear);

/// Colors of the figure that follows are taken so, with the labels of the color bar.
void set_count_colors(Plot& plot, std::uint64_t highest, bool linear);

/// Cuts off on the right of a box what a scale of colors takes, with its tics and its title;
/// returns where its colors stand.
Box cut_color_scale(Box& box);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_PLOT_HEAT_SCALE_H_
