// Text broken into lines between words.
#ifndef CHALCEDONY_FIGURE_PLOT_TEXT_LINES_H_
#define CHALCEDONY_FIGURE_PLOT_TEXT_LINES_H_

#include <cstddef>
#include <string>
#include <string_view>
#include <vector>

namespace chalcedony {

/// The height of a line on a page, in pixels.
inline constexpr double kTextRow = 32;

/// Lines of at most `columns` letters; a longer word has a line of its own.
std::vector<std::string> text_lines(std::string_view text, std::size_t columns);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_PLOT_TEXT_LINES_H_
