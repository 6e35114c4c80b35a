// The cells of a matrix of shares, colored by heat, with texts on them.
#ifndef CHALCEDONY_FIGURE_PLOT_HEAT_CELLS_H_
#define CHALCEDONY_FIGURE_PLOT_HEAT_CELLS_H_

#include <string>

#include "figure/plot/placed_texts.h"

namespace chalcedony {

/// Cells one unit wide and high, by their middles.
class HeatCells {
 public:
  /// `share`: 0-1.
  void add(double x, double y, double share);
  /// A text that is read on a cell of this share.
  void add_text(double x, double y, double share, const std::string& text);

  /// The `plot` of the cells, each of which reaches so far above and below its middle, with their
  /// texts. `border` is how gnuplot draws the edges of boxes. Empty without cells.
  std::string plot_of(Plot& plot, double half_height, const std::string& border) const;

 private:
  std::string cells_;
  PlacedTexts on_dark_, on_light_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_PLOT_HEAT_CELLS_H_
