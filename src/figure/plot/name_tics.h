// Tics that bear names: of the rows and columns of a matrix, of bars.
#ifndef CHALCEDONY_FIGURE_PLOT_NAME_TICS_H_
#define CHALCEDONY_FIGURE_PLOT_NAME_TICS_H_

#include <cstddef>
#include <string>
#include <vector>

namespace chalcedony {

/// What names take above a panel, as they are and turned, in pixels of the page.
inline constexpr double kNamesAbove = 24, kTurnedNamesAbove = 96;

/// Names as they stand above columns so wide, or turned where `turned`; cut where there is no room.
std::vector<std::string> names_above(const std::vector<std::string>& names, double column,
                                     bool turned, int points);

/// gnuplot's list of tics, with the color of their text, for rows 0 to 1, 1 to 2, ..., each at its
/// middle: the names, of more than `most` every second, third, ..., and all of what stands behind
/// them.
std::string name_tics(const std::vector<std::string>& names, const std::vector<std::string>& behind,
                      std::size_t most);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_PLOT_NAME_TICS_H_
