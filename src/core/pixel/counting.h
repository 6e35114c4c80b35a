// Which pixels of a picture count, and how many do not.
#ifndef CHALCEDONY_CORE_PIXEL_COUNTING_H_
#define CHALCEDONY_CORE_PIXEL_COUNTING_H_

#include <cstdint>
#include <memory>
#include <optional>

#include "core/pixel/mask.h"
#include "core/pixel/region.h"

namespace chalcedony {

/// Whether the place of a pixel counts, or the first reason why not.
enum class PlaceCounts : std::uint8_t { kYes, kOutsideRegion, kOutsideMask };

/// Which pixels of a picture count.
struct Counting {
  std::optional<PixelRect> region;
  std::shared_ptr<const Mask> within;  // null: everywhere
  bool count_transparent = false;      // count fully transparent pixels too

  /// Whether all places count.
  bool everywhere() const { return !region && !within; }
  /// Of the pixel at x, y, which has this number in raster order.
  PlaceCounts place(std::uint32_t x, std::uint32_t y, std::uint64_t pixel) const {
    if (region && !region->contains(x, y)) return PlaceCounts::kOutsideRegion;
    return within && !within->at(pixel) ? PlaceCounts::kOutsideMask : PlaceCounts::kYes;
  }
};

/// Every pixel that is finite.
inline Counting count_all() { return {{}, nullptr, true}; }

/// How many pixels do not count, each under the first reason that holds.
struct Excluded {
  std::uint64_t outside_region = 0;
  std::uint64_t outside_mask = 0;
  std::uint64_t transparent = 0;
  std::uint64_t not_finite = 0;

  std::uint64_t total() const { return outside_region + outside_mask + transparent + not_finite; }
  /// Adds n pixels whose place is one that does not count; none where it counts.
  void add(PlaceCounts place, std::uint64_t n) {
    if (place == PlaceCounts::kOutsideRegion) outside_region += n;
    if (place == PlaceCounts::kOutsideMask) outside_mask += n;
  }
  Excluded& operator+=(const Excluded& other) {
    outside_region += other.outside_region;
    outside_mask += other.outside_mask;
    transparent += other.transparent;
    not_finite += other.not_finite;
    return *this;
  }
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_COUNTING_H_
