// Lines that are seen on any ground.
#ifndef CHALCEDONY_FIGURE_PLOT_CASED_LINE_H_
#define CHALCEDONY_FIGURE_PLOT_CASED_LINE_H_

#include <string>

namespace chalcedony {

/// A line, its CSS color and its width in gnuplot's units.
struct LineLook {
  std::string color;
  double width;
};

/// Stored points as a line on a wider one, which parts it from what it is drawn on: a part of a
/// `plot` without a title.
std::string cased_line(const std::string& stored, const LineLook& line, const LineLook& casing);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_PLOT_CASED_LINE_H_
