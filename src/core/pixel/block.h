// A Block: some thousand pixels of one picture, as planar float, with the knowledge of where they
// are and which of them count. Every computation on pixels is a function over Blocks.
#ifndef CHALCEDONY_CORE_PIXEL_BLOCK_H_
#define CHALCEDONY_CORE_PIXEL_BLOCK_H_

#include <cstddef>
#include <cstdint>

#include "core/planes.h"

namespace chalcedony {

class Band;

/// The planes belong to the reader that filled them and hold until its next Block. Pixels run on
/// in raster order, over row ends, so narrow pictures make full Blocks too.
struct Block {
  std::uint32_t picture_width = 0;
  std::uint64_t first_pixel = 0;  // number of the first pixel in raster order
  std::size_t size = 0;           // pixels, at most kBlockPixels

  ConstPlanes color{};                     // in the space of the picture, in its units; or not read
  const float* alpha = nullptr;            // 0-1, or null when the picture has none
  const std::byte* stored = nullptr;       // the samples as stored, interleaved
  const Band* band = nullptr;              // where its neighborhood is; null when that is not known
  const std::uint8_t* counted = nullptr;   // 1 for pixels that count; null when all do
  std::size_t counted_size = 0;            // how many count
  const std::uint32_t* weights = nullptr;  // pixels of the picture each one stands for; null: one

  std::uint64_t pixel(std::size_t i) const { return first_pixel + i; }
  std::uint32_t x(std::size_t i) const {
    return static_cast<std::uint32_t>(pixel(i) % picture_width);
  }
  std::uint32_t y(std::size_t i) const {
    return static_cast<std::uint32_t>(pixel(i) / picture_width);
  }
  bool counts(std::size_t i) const { return counted == nullptr || counted[i] != 0; }
  /// What pixel i lends to a mean of several: its alpha, or nothing when it does not count.
  float lends(std::size_t i) const { return !counts(i) ? 0.0f : alpha ? alpha[i] : 1.0f; }
  /// Pixels of the picture that pixel i stands for: 0 when it does not count.
  std::uint32_t weight(std::size_t i) const {
    if (!counts(i)) return 0;
    return weights ? weights[i] : 1;
  }
};

/// Calls use(i, weight) for every pixel of a Block. Where all of them count for one, no weight is
/// looked up.
template <class Use>
void for_each_weight(const Block& block, Use use) {
  const std::size_t n = block.size;  // what `use` writes might alias it
  if (block.counted || block.weights) {
    for (std::size_t i = 0; i < n; ++i) use(i, block.weight(i));
  } else {
    // Counters that are taken in turn are known beforehand in what is unrolled.
#pragma GCC unroll 4
    for (std::size_t i = 0; i < n; ++i) use(i, std::uint32_t{1});
  }
}

/// The Block with all its pixels opaque.
inline Block without_alpha(const Block& block) {
  Block opaque = block;
  opaque.alpha = nullptr;
  return opaque;
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_BLOCK_H_
