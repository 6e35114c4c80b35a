// A Block taken apart into rows.
#ifndef CHALCEDONY_CORE_PIXEL_ROW_PARTS_H_
#define CHALCEDONY_CORE_PIXEL_ROW_PARTS_H_

#include <algorithm>
#include <cstddef>
#include <cstdint>

#include "core/pixel/block.h"

namespace chalcedony {

/// Calls use(first, n, x, y) for every part of a Block that lies in one row of the picture: its n
/// pixels from `first` on are those at x, x + 1, ... of row y.
template <class Use>
void for_each_row_part(const Block& block, Use use) {
  std::uint32_t x = block.x(0), y = block.y(0);
  for (std::size_t first = 0; first < block.size; x = 0, ++y) {
    const std::size_t n = std::min<std::size_t>(block.size - first, block.picture_width - x);
    use(first, n, x, y);
    first += n;
  }
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_ROW_PARTS_H_
