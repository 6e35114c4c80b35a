// What pixels tell of how a picture is stored: really gray, really opaque, really of so many bits.
#ifndef CHALCEDONY_CORE_STATS_PICTURE_TRAITS_H_
#define CHALCEDONY_CORE_STATS_PICTURE_TRAITS_H_

#include <cstdint>

#include "core/pixel/block.h"
#include "core/pixel/raster.h"

namespace chalcedony {

struct PictureTraits {
  bool colored = false;              // some counted pixel has r g b that differ
  bool translucent = false;          // some pixel is not fully opaque
  bool uses_low_bytes = false;       // some 16-bit sample is not an 8-bit code repeated
  std::uint16_t largest_sample = 0;  // of 16-bit samples

  void add(const Block& block, const PictureInfo& info);
  /// In any order.
  void merge(const PictureTraits& other);
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_STATS_PICTURE_TRAITS_H_
