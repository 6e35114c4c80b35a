// How a color looks to people with a common color-vision deficiency.
#ifndef CHALCEDONY_CORE_PALETTE_COLOR_VISION_H_
#define CHALCEDONY_CORE_PALETTE_COLOR_VISION_H_

#include <array>
#include <cstddef>
#include <string_view>

#include "core/color/css_color.h"

namespace chalcedony {

/// Full, or without the cones for red, green or blue light.
enum class ColorVision { kFull, kProtanopia, kDeuteranopia, kTritanopia };

inline constexpr std::size_t kColorVisions = 4;
inline constexpr std::array<ColorVision, kColorVisions - 1> kVisionDeficiencies{
    ColorVision::kProtanopia, ColorVision::kDeuteranopia, ColorVision::kTritanopia};

/// "full", "protanopia", "deuteranopia" or "tritanopia".
std::string_view name_of(ColorVision vision);

/// The cones whose lack a deficiency is: "red", "green" or "blue".
std::string_view missing_cones(ColorVision deficiency);

/// Simulates a deficiency at full severity.
///
/// Units     sRGB in 0-255, encoded; the matrices act on linear light
/// Source    Machado, Oliveira and Fernandes (2009), IEEE Transactions on Visualization and
///           Computer Graphics 15(6), table of severity 1.0
std::array<double, 3> seen_with(ColorVision vision, const std::array<double, 3>& srgb);

/// The same of a color as it is written, in 8 bits of sRGB.
Color seen_with(ColorVision vision, const Color& color);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PALETTE_COLOR_VISION_H_
