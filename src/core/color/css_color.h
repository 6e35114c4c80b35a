// Colors as CSS writes them: `#b5563a`, `rgb(181 86 58)`, `oklch(57% 0.12 42)`.
#ifndef CHALCEDONY_CORE_COLOR_CSS_COLOR_H_
#define CHALCEDONY_CORE_COLOR_CSS_COLOR_H_

#include <array>
#include <string>
#include <string_view>
#include <vector>

#include "core/color/space.h"

namespace chalcedony {

/// A color of a space, in the contract's units.
struct Color {
  const Space* space = nullptr;
  std::array<double, 3> value{};

  /// The same color in another space.
  std::array<double, 3> in(const Space& other) const;
  /// Whether its encoded r g b differ by more than 0.001 of 255. A gray has a hue by arithmetic
  /// only.
  bool has_hue() const;
};

/// Reads hexadecimal (3 or 6 digits), rgb(), hsl(), hwb(), lab(), lch(), oklab(), oklch() and
/// color(SPACE a b c) with numbers or percentages, separated by spaces or commas.
///
/// Errors    UsageError that shows a right one
/// Source    CSS Color Module Level 4; alpha and `none` are not taken
Color css_color(std::string_view text);

/// Each of them.
std::vector<Color> css_colors(const std::vector<std::string>& texts);

/// `#rrggbb`, clipped and rounded to 8 bits.
std::string css_hex(const Color& color);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_COLOR_CSS_COLOR_H_
