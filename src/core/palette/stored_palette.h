// Numbers of colors as the stored samples of those colors: how pictures of few colors are painted.
#ifndef CHALCEDONY_CORE_PALETTE_STORED_PALETTE_H_
#define CHALCEDONY_CORE_PALETTE_STORED_PALETTE_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/color/css_color.h"

namespace chalcedony {

/// Up to 255 colors in 8-bit sRGB, clipped and rounded. Number 0 is no color: black, and
/// transparent.
class StoredPalette {
 public:
  /// The colors of number 1, 2, ...
  explicit StoredPalette(const std::vector<Color>& colors);

  /// Writes n pixels of 3 samples, or of 4 with alpha, one after the other. A number without a
  /// color is like 0.
  void paint(const std::uint8_t* numbers, std::size_t n, std::uint32_t channels,
             std::byte* stored) const;

  /// A sample of every number, for each of red, green, blue and alpha.
  using Samples = std::array<std::array<std::uint8_t, 256>, 4>;

 private:
  Samples samples_{};
  std::size_t used_ = 1;  // numbers, with 0
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PALETTE_STORED_PALETTE_H_
