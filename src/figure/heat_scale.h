// The heat ramp as gnuplot's palette.
#ifndef CHALCEDONY_FIGURE_HEAT_SCALE_H_
#define CHALCEDONY_FIGURE_HEAT_SCALE_H_

#include "figure/plot.h"

namespace chalcedony {

/// Colors of the figure that follow are taken from the heat ramp.
void set_heat_scale(Plot& plot);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_HEAT_SCALE_H_
