// Mean, spread and range of a channel; the circular mean and spread of a hue.
#ifndef CHALCEDONY_CORE_STATS_MOMENTS_H_
#define CHALCEDONY_CORE_STATS_MOMENTS_H_

#include <cstdint>
#include <limits>

#include "core/pixel/block.h"

namespace chalcedony {

/// Sums of the counted values of one channel, in double. Add Blocks, then bands, in picture order
/// and the result is the same for any number of threads.
struct Moments {
  std::uint64_t count = 0;
  std::uint64_t at_low = 0;   // values at or below the end of the range
  std::uint64_t at_high = 0;  // values at or above its other end
  double sum = 0;
  double sum_of_squares = 0;
  float smallest = std::numeric_limits<float>::infinity();
  float largest = -std::numeric_limits<float>::infinity();

  /// Values that are not a number are left out; each counts for as many pixels as its weight says.
  ///
  /// Shape     `values` of the Block's pixels, padded as in planes.h
  void add(const Block& block, const float* values, double low, double high);
  Moments& operator+=(const Moments& later);

  double mean() const;
  /// Standard deviation of the described pixels: divided by n.
  double standard_deviation() const;
};

/// Sums of the directions of one hue channel.
struct HueMoments {
  std::uint64_t count = 0;
  double sine = 0;
  double cosine = 0;

  /// As Moments::add; degrees from -1e6 to 1e6.
  void add(const Block& block, const float* degrees);
  HueMoments& operator+=(const HueMoments& later);

  /// Degrees in [0, 360).
  double mean() const;
  /// Circular standard deviation in degrees, sqrt(-2 ln R).
  ///
  /// Source    Mardia and Jupp, Directional Statistics (2000), 2.3.1
  double spread() const;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_STATS_MOMENTS_H_
