// Legends that are longer than their place in a figure.
#ifndef CHALCEDONY_FIGURE_LEGEND_ROOM_H_
#define CHALCEDONY_FIGURE_LEGEND_ROOM_H_

#include <cstddef>
#include <string>

namespace chalcedony {

/// How many lines are shown in so many places: all, or one less than fit, since the last place then
/// says how many more there are.
inline std::size_t shown_lines(std::size_t lines, std::size_t places) {
  return lines <= places ? lines : places - 1;
}

/// "and 253 more"
inline std::string and_more(std::size_t left_out) {
  return "and " + std::to_string(left_out) + " more";
}

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_LEGEND_ROOM_H_
