// Dark or light text, whichever can be read.
#ifndef CHALCEDONY_FIGURE_PLOT_TEXT_COLOR_H_
#define CHALCEDONY_FIGURE_PLOT_TEXT_COLOR_H_

#include <string>

namespace chalcedony {

/// Text on light and on dark grounds.
inline constexpr const char* kDarkText = "#14202c";
inline constexpr const char* kLightText = "#fcfbf8";

/// The one with the larger contrast ratio on a ground of this CSS color.
const char* text_color_on(const std::string& color);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_PLOT_TEXT_COLOR_H_
