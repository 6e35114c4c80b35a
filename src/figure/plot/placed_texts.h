// Texts at places of a panel.
#ifndef CHALCEDONY_FIGURE_PLOT_PLACED_TEXTS_H_
#define CHALCEDONY_FIGURE_PLOT_PLACED_TEXTS_H_

#include <string>

#include "figure/plot/plot.h"

namespace chalcedony {

/// Texts at places of a panel, as one data block of gnuplot.
class PlacedTexts {
 public:
  void add(double x, double y, const std::string& text);
  /// What a `plot` of something else goes on with; empty without texts.
  std::string plot_of(Plot& plot, const char* color) const;

 private:
  std::string data_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_PLOT_PLACED_TEXTS_H_
