// What the labels of another picture take of regions.
#ifndef CHALCEDONY_CORE_REGION_REGION_LABELS_H_
#define CHALCEDONY_CORE_REGION_REGION_LABELS_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/pixel/label.h"

namespace chalcedony {

/// How many pixels of a region have a label.
struct LabelPixels {
  Label label = 0;
  std::uint64_t pixels = 0;
};

/// Counts the labels of pixels in regions, which are numbered from 0 on.
///
/// Cost      16 bytes for each label that a region holds, and 24 for each region
class RegionLabels {
 public:
  explicit RegionLabels(std::size_t regions) : held_(regions) {}

  /// Adds so many pixels of a region.
  void add(std::size_t region, Label label, std::uint64_t pixels);

  std::size_t regions() const { return held_.size(); }
  /// The labels that a region holds, in order.
  const std::vector<LabelPixels>& of(std::size_t region) const { return held_[region]; }
  /// How many pixels of a region have this label.
  std::uint64_t pixels(std::size_t region, Label label) const;
  /// How many it has in all.
  std::uint64_t pixels(std::size_t region) const;

 private:
  std::vector<std::vector<LabelPixels>> held_;
};

/// What a label takes of some regions. Shares are percent of the pixels of a region.
struct LabelShares {
  std::uint64_t pixels = 0;                    // of all of the regions
  std::size_t held_by = 0;                     // regions with at least one pixel of it
  double lowest = 0, median = 0, highest = 0;  // median: the nearest rank
  std::size_t highest_region = 0;              // the first one with the highest share
};

/// Shape     one region at least, each with a pixel
LabelShares label_shares(const RegionLabels& labels, Label label,
                         const std::vector<std::size_t>& regions);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_REGION_REGION_LABELS_H_
