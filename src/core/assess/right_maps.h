// Which of several maps of one picture are right at a pixel.
#ifndef CHALCEDONY_CORE_ASSESS_RIGHT_MAPS_H_
#define CHALCEDONY_CORE_ASSESS_RIGHT_MAPS_H_

#include <array>
#include <cstddef>
#include <cstdint>

namespace chalcedony {

/// Of a first map and others. Where none is right, no choice among the maps helps; where only
/// others are, another method does.
enum class RightMaps : std::uint8_t { kAll, kFirstAndSome, kOnlyFirst, kOnlyOthers, kNone };

inline constexpr std::size_t kRightMaps = 5;

/// By whether the first is right, and how many of the `others`, of which there is one at least.
constexpr RightMaps right_maps(bool first, std::size_t others_right, std::size_t others) {
  if (!first) return others_right > 0 ? RightMaps::kOnlyOthers : RightMaps::kNone;
  if (others_right == 0) return RightMaps::kOnlyFirst;
  return others_right == others ? RightMaps::kAll : RightMaps::kFirstAndSome;
}

/// Numbers of pixels, by RightMaps.
using RightCounts = std::array<std::uint64_t, kRightMaps>;

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_ASSESS_RIGHT_MAPS_H_
