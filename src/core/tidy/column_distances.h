// Distances along the columns of a picture: the first half of distance transforms.
#ifndef CHALCEDONY_CORE_TIDY_COLUMN_DISTANCES_H_
#define CHALCEDONY_CORE_TIDY_COLUMN_DISTANCES_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/tidy/element.h"

namespace chalcedony {

using Distances = std::vector<std::uint16_t>;

/// Distances are capped, so that rows beyond any radius need no case of their own.
inline constexpr std::uint16_t kFarAway = 20000;

/// One pixel farther.
inline std::uint16_t next_distance(std::uint16_t distance) {
  return distance < kFarAway ? static_cast<std::uint16_t>(distance + 1) : kFarAway;
}

/// Distance of each pixel to the nearest one that is on in its column; kFarAway where none is.
///
/// Source    Meijster, Roerdink and Hesselink (2000), the first phase
Distances column_distances(const Flags& on, std::size_t width);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_TIDY_COLUMN_DISTANCES_H_
