// Rows of a panel from the top down, one for each picture: row r reaches from r to r + 1.
#ifndef CHALCEDONY_FIGURE_PLOT_PICTURE_ROWS_H_
#define CHALCEDONY_FIGURE_PLOT_PICTURE_ROWS_H_

#include <cstddef>
#include <string>
#include <vector>

#include "figure/plot/plot.h"

namespace chalcedony {

/// More rows are not named each: higher pages are not easily seen.
inline constexpr std::size_t kMostNamedRows = 60;
/// The size of names, and of what else is written beside bars.
inline constexpr int kPicturePoints = 11;

/// What the names take at the left of a body so wide, in pixels of the page.
double row_names_wide(const std::vector<std::string>& names, double body);

/// Names the rows of a panel that has so much room at its left.
void name_rows(Plot& plot, const std::vector<std::string>& names, double room);

/// A bar in the units of both axes.
struct RowBar {
  double from, to;
  double top, bottom;
};

/// As a line of data.
std::string bar_data(const RowBar& bar);

/// The part of a `plot` that draws bars, given as lines of data.
std::string plot_of_bars(Plot& plot, const std::string& bars, const std::string& color);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_PLOT_PICTURE_ROWS_H_
