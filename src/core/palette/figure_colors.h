// The colors of Chalcedony's own figures: classes and heat.
#ifndef CHALCEDONY_CORE_PALETTE_FIGURE_COLORS_H_
#define CHALCEDONY_CORE_PALETTE_FIGURE_COLORS_H_

#include <cstddef>
#include <string>
#include <vector>

#include "core/color/css_color.h"

namespace chalcedony {

/// The color of class `index` (0 is the first), for classes that bring none. The first eight stay
/// 10 delta E (CIEDE2000) apart for full color vision, protanopia, deuteranopia and tritanopia;
/// later ones walk round the hue circle by the golden angle.
Color class_color(std::size_t index);

/// What is selected is drawn in, where no class says a color: the blue-gray of the figures.
inline constexpr const char* kSelectedColor = "#5b7f95";

/// What a class of a map or the one of a mask is drawn in: white, as a mask has it, is not seen on
/// paper.
inline std::string color_on_paper(bool is_mask, const std::string& color) {
  return is_mask ? kSelectedColor : color;
}

/// `steps` colors from slate over chalcedony blue-gray and honey to near white, equal steps apart
/// in oklab (figure_colors_test.cc: within 5 %).
std::vector<Color> heat_ramp(std::size_t steps);

/// Of some grays, as CSS, the one that is hardest to take for one of these colors.
std::string gray_apart_from(const std::vector<std::string>& colors);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PALETTE_FIGURE_COLORS_H_
