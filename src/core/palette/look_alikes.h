// Which colors of a palette look alike to people with a color-vision deficiency.
#ifndef CHALCEDONY_CORE_PALETTE_LOOK_ALIKES_H_
#define CHALCEDONY_CORE_PALETTE_LOOK_ALIKES_H_

#include <array>
#include <cstddef>
#include <vector>

#include "core/palette/color_vision.h"
#include "core/palette/palette.h"

namespace chalcedony {

/// How far apart two colors of a palette are to everybody.
struct SeenPair {
  std::size_t first = 0, second = 0;             // in the palette
  std::array<double, kColorVisions> distance{};  // CIEDE2000, in the order of ColorVision

  double seen_with(ColorVision vision) const { return distance[static_cast<std::size_t>(vision)]; }
};

/// All pairs of colors as they are written, in the order of the palette.
std::vector<SeenPair> seen_pairs(const Palette& palette);

/// The pair that is closest with this vision, the first of several; null when there is none.
const SeenPair* closest_pair(const std::vector<SeenPair>& pairs, ColorVision vision);

/// Two colors that a deficiency makes look alike.
struct LookAlike {
  SeenPair pair;
  ColorVision vision = ColorVision::kFull;  // with which they look most alike
};

/// The pairs that are at least `apart` from each other with full color vision, and closer with some
/// deficiency; the closest first.
std::vector<LookAlike> look_alikes(const std::vector<SeenPair>& pairs, double apart);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PALETTE_LOOK_ALIKES_H_
