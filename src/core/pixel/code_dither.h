// Dithering of values that are rounded to codes.
#ifndef CHALCEDONY_CORE_PIXEL_CODE_DITHER_H_
#define CHALCEDONY_CORE_PIXEL_CODE_DITHER_H_

#include <array>
#include <cstdint>

#include "core/pixel/block.h"
#include "core/pixel/raster.h"

namespace chalcedony {

/// Adds or takes up to half a code at random, so that means of many pixels come out right. What is
/// drawn hangs on the seed and the place of the pixel alone.
class CodeDither {
 public:
  /// `scales`: of the channels as they will be stored.
  CodeDither(std::uint64_t seed, const std::array<SampleScale, 3>& scales);

  /// Changes the colors of a Block, in the units of its channels.
  void add(const Block& block, const Planes& color) const;

 private:
  std::uint64_t seed_;
  std::array<float, 3> steps_;  // of a code
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_CODE_DITHER_H_
