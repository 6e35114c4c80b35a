// How a color looks to people with a common color-vision deficiency.
#ifndef CHALCEDONY_CORE_PALETTE_COLOR_VISION_H_
#define CHALCEDONY_CORE_PALETTE_COLOR_VISION_H_

#include <array>

namespace chalcedony {

enum class ColorVision { kFull, kProtanopia, kDeuteranopia, kTritanopia };

/// Simulates a deficiency at full severity.
///
/// Units     sRGB in 0-255, encoded; the matrices act on linear light
/// Source    Machado, Oliveira and Fernandes (2009), IEEE Transactions on Visualization and
///           Computer Graphics 15(6), table of severity 1.0
std::array<double, 3> seen_with(ColorVision vision, const std::array<double, 3>& srgb);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PALETTE_COLOR_VISION_H_
