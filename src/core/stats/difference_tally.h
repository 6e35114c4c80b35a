// How two pictures differ, pixel by pixel.
#ifndef CHALCEDONY_CORE_STATS_DIFFERENCE_TALLY_H_
#define CHALCEDONY_CORE_STATS_DIFFERENCE_TALLY_H_

#include <cstddef>
#include <cstdint>

#include "core/pixel/block.h"
#include "core/stats/distance_sums.h"

namespace chalcedony {

/// Differences of pixels that do not count in one of two Blocks, and infinite ones, become NaN.
void leave_out_uncounted(const Block& first, const Block& second, float* differences);

/// Writes n differences as grays: 0 to `most` and beyond as 0-255, what is not a number as 0.
void differences_as_gray(const float* differences, std::size_t n, double most, float* gray);

/// Gathers the differences of pixels. Add rows in picture order and the result is the same for any
/// number of threads.
class DifferenceTally {
 public:
  /// `steps`: as of DistanceSums. Differences above the tolerance are counted.
  DifferenceTally(double steps, double tolerance);

  /// Adds those of n pixels from `first_pixel` on; what is not a number is left out.
  void add(const float* differences, std::size_t n, std::uint64_t first_pixel);
  /// Adds what another one of the same steps and tolerance gathered of later pixels.
  DifferenceTally& operator+=(const DifferenceTally& later);

  std::uint64_t counted() const { return static_cast<std::uint64_t>(sums_.weight()); }
  std::uint64_t above() const { return above_; }
  /// The first pixel of the largest difference.
  std::uint64_t largest_pixel() const { return largest_pixel_; }
  DistanceSummary summary() const { return sums_.summary(); }

 private:
  DistanceSums sums_;
  float tolerance_;  // the largest float that is not above it
  std::uint64_t above_ = 0;
  std::int32_t largest_ = -1;  // its bits; -1 before there is one
  std::uint64_t largest_pixel_ = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_STATS_DIFFERENCE_TALLY_H_
