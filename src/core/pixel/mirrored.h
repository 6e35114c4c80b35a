// Pictures go on beyond their edges as their mirror image.
#ifndef CHALCEDONY_CORE_PIXEL_MIRRORED_H_
#define CHALCEDONY_CORE_PIXEL_MIRRORED_H_

#include <cstddef>
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

/// Fills `margin` columns on either side of a row of `width` values, which begin at row[margin],
/// with the row as a mirror shows it.
inline void mirror_sides(float* row, std::uint32_t width, std::size_t margin) {
  float* const middle = row + margin;
  for (std::size_t i = 0; i < margin; ++i) {
    const auto away = static_cast<std::int64_t>(i);
    middle[-away - 1] = middle[mirrored(-away - 1, width)];
    middle[width + i] = middle[mirrored(away + width, width)];
  }
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_MIRRORED_H_
