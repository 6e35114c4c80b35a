// What goes over from one upright strip to another, as bands between them.
#ifndef CHALCEDONY_FIGURE_PLOT_FLOW_BANDS_H_
#define CHALCEDONY_FIGURE_PLOT_FLOW_BANDS_H_

#include <string>
#include <vector>

#include "figure/plot/plot.h"

namespace chalcedony {

/// In pixels of the page: from its top at the left to its top at the right, and its height.
struct FlowBand {
  double left, right;
  double from, to;
  double height;
  std::string color;
  double opacity = 0.45;
};

/// All bands of a box in one panel.
void draw_flow_bands(Plot& plot, const Box& box, const std::vector<FlowBand>& bands);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_PLOT_FLOW_BANDS_H_
