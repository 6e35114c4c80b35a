// Pictures go on beyond their edges as their mirror image.
#ifndef CHALCEDONY_CORE_PIXEL_MIRRORED_H_
#define CHALCEDONY_CORE_PIXEL_MIRRORED_H_

#include <cstdint>

namespace chalcedony {

/// The row or column, 0 to n - 1, seen at `i` when the edge itself is the mirror: -1 shows 0, n
/// shows n - 1. Any `i`, however far outside.
inline std::uint32_t mirrored(std::int64_t i, std::uint32_t n) {
  const std::int64_t period = 2 * std::int64_t{n};
  i %= period;
  if (i < 0) i += period;
  return static_cast<std::uint32_t>(i < n ? i : period - 1 - i);
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_MIRRORED_H_
