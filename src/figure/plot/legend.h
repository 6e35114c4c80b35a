// What the colors in a figure mean: classes or colors with their shares.
#ifndef CHALCEDONY_FIGURE_PLOT_LEGEND_H_
#define CHALCEDONY_FIGURE_PLOT_LEGEND_H_

#include <cstddef>
#include <optional>
#include <string>
#include <vector>

#include "figure/plot/plot.h"

namespace chalcedony {

/// A class in a legend.
struct LegendLine {
  std::string name;
  std::string color;
  std::optional<double> percent = {};  // share of the counted pixels
  std::string count = {};              // or what else is told of it, as "144 pixels"
};

/// How many lines are shown in so many places: all, or one less than fit, since the last place then
/// says how many more there are.
inline std::size_t shown_lines(std::size_t lines, std::size_t places) {
  return lines <= places ? lines : places - 1;
}

/// "and 1,253 more"
std::string and_more(std::size_t left_out);

/// The width of a legend in one column, when no name is cut.
double legend_width(const std::vector<LegendLine>& legend);

/// The height of a legend so wide, when all lines are shown.
double legend_height(const std::vector<LegendLine>& legend, double width);

/// The lines in columns from the top of a box down; where they are too many for it, those with the
/// largest shares, and how many are left out. Names that are too long are cut.
void draw_legend(Plot& plot, const std::vector<LegendLine>& legend, const Box& box);

/// Colors side by side, each as wide as its share.
void draw_share_bar(Plot& plot, Box box, const std::vector<LegendLine>& colors);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_PLOT_LEGEND_H_
