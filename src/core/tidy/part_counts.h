// How many regions there are when they are parted at their necks, and how far to go.
#ifndef CHALCEDONY_CORE_TIDY_PART_COUNTS_H_
#define CHALCEDONY_CORE_TIDY_PART_COUNTS_H_

#include <cstddef>
#include <cstdint>
#include <span>
#include <vector>

#include "core/tidy/part_regions.h"

namespace chalcedony {

/// Parts that are less than this deeper than their neck are an effect of square pixels, in pixels.
inline constexpr double kLeastDeeper = 0.5;

/// How many regions part_regions() leaves for every `deeper` above `above`, up to `to` (pixels).
struct PartCount {
  double above = 0, to = 0;
  std::uint64_t regions = 0;
};

/// The numbers of regions of a class, from few to many, and the one that stands out.
struct PartCounts {
  std::vector<PartCount> all;  // the first one is without parting
  std::size_t chosen = 0;

  const PartCount& without() const { return all.front(); }
  const PartCount& choice() const { return all[chosen]; }
};

/// Of the parts of one class, at least one. The first number holds up to the radius of the largest
/// disk in a region, the last one down to kLeastDeeper.
///
/// Chosen is the number that stays over the widest range of `deeper`, as the ratio of its ends; of
/// those that begin at no more than an eighth of a typical radius, as rough edges make no more. No
/// parting is among them when it begins at no more than a quarter, as parts with narrower necks are
/// parts for sure; its range ends at the typical radius: half of the area of the largest disks of
/// regions is in disks no larger. No parting, too, where no ratio is above 1.5.
///
/// Errors    std::invalid_argument for no parts
/// Source    the persistence of the parts: Edelsbrunner, Letscher and Zomorodian (2002)
PartCounts part_counts(std::span<const RegionPart> parts);

/// A short number in the middle of a range, for the step `part`.
double middle_of(const PartCount& count);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_TIDY_PART_COUNTS_H_
