// The values of a tile by their rank, for medians that are found by counting.
#ifndef CHALCEDONY_CORE_FILTER_RANKED_TILE_H_
#define CHALCEDONY_CORE_FILTER_RANKED_TILE_H_

#include <cstddef>
#include <cstdint>
#include <limits>
#include <vector>

#include "core/filter/tile.h"

namespace chalcedony {

/// How many 8-bit codes there are.
inline constexpr std::size_t kCodes = 256;

struct RankedTile {
  std::size_t width = 0;
  std::vector<std::uint32_t> ranks;  // among the values; values.size() for NaN
  std::vector<float> values;         // those that occur, in rising order

  const std::uint32_t* row(std::size_t y) const { return ranks.data() + y * width; }
  /// NaN for a rank that is none.
  float value_of(std::size_t rank) const {
    return rank < values.size() ? values[rank] : std::numeric_limits<float>::quiet_NaN();
  }
};

/// A tile of codes: each of the 256 is its own rank.
RankedTile ranked_codes(const Tile& tile);

/// A tile of any values.
RankedTile ranked(const Tile& tile);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_FILTER_RANKED_TILE_H_
