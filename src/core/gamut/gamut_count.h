// How many colors lie outside what a file can hold.
#ifndef CHALCEDONY_CORE_GAMUT_GAMUT_COUNT_H_
#define CHALCEDONY_CORE_GAMUT_GAMUT_COUNT_H_

#include <cstdint>

#include "core/pixel/block.h"
#include "core/pixel/raster.h"

namespace chalcedony {

struct GamutCount {
  std::uint64_t outside = 0;  // counted pixels with a channel out of its range
  float largest_excess = 0;   // in 255ths of the range

  /// `color`: what is to be stored as `stored` says. RGB out of 0-255 is out of gamut in every
  /// depth; other spaces are only cut off by integers.
  void add(const Block& block, const ConstPlanes& color, const PictureInfo& stored);
  GamutCount& operator+=(const GamutCount& other);
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_GAMUT_GAMUT_COUNT_H_
