// How many regions each class has, and how large they are.
#ifndef CHALCEDONY_CORE_REGION_CLASS_SIZES_H_
#define CHALCEDONY_CORE_REGION_CLASS_SIZES_H_

#include <cstdint>
#include <vector>

#include "core/region/region_meter.h"

namespace chalcedony {

/// Sizes in pixels.
struct ClassSizes {
  Label label = 0;
  std::uint64_t regions = 0, at_edge = 0;  // those that touch the edge of the picture too
  std::uint64_t pixels = 0;                // of all of them
  std::vector<std::uint64_t> sorted;       // of each region, from small to large

  double mean() const { return static_cast<double>(pixels) / static_cast<double>(regions); }
  /// The smallest size that at least p percent of the regions do not exceed (nearest rank), for
  /// 0 <= p <= 100.
  std::uint64_t percentile(double p) const;
};

/// The sizes of the classes that have regions, in the order of their numbers.
std::vector<ClassSizes> sizes_of_classes(const std::vector<RegionMeasures>& regions);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_REGION_CLASS_SIZES_H_
