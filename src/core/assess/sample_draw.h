// Draws pixels at random for an assessment: every pixel has a hash, and those with the smallest
// are drawn. That needs no list of all pixels and no order.
#ifndef CHALCEDONY_CORE_ASSESS_SAMPLE_DRAW_H_
#define CHALCEDONY_CORE_ASSESS_SAMPLE_DRAW_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/assess/labels.h"

namespace chalcedony {

/// A drawn pixel and its labels.
struct DrawnPixel {
  std::uint64_t hash = 0;
  std::uint64_t pixel = 0;
  Labels labels{};
};

/// `total` shared out among strata: the same to each, the first ones get what is left over. None
/// gets more than it has pixels.
std::vector<std::uint64_t> equal_allocation(std::uint64_t total,
                                            const std::vector<std::uint64_t>& pixels);

/// `total` shared out by the size of the strata, rounded by largest remainders; the sum is `total`
/// unless there are fewer pixels.
std::vector<std::uint64_t> proportional_allocation(std::uint64_t total,
                                                   const std::vector<std::uint64_t>& pixels);

/// A random draw without replacement from each of several strata.
class SampleDraw {
 public:
  /// `wanted` from each stratum, of the `pixels` it has.
  SampleDraw(std::uint64_t seed, const std::vector<std::uint64_t>& pixels,
             std::vector<std::uint64_t> wanted);

  /// The hash of a pixel.
  std::uint64_t hash_of(std::uint64_t pixel) const;
  /// Whether a pixel with this hash may be among the drawn ones. Somewhat more than wanted are.
  bool may_take(std::size_t stratum, std::uint64_t hash) const { return hash <= limit_[stratum]; }

  /// The wanted number of candidates of each stratum with the smallest hashes, all in the order of
  /// their hashes. Empty when a stratum has too few candidates, which is next to impossible:
  /// widen() and collect them again then.
  std::vector<DrawnPixel> drawn(const std::vector<std::vector<DrawnPixel>>& candidates) const;
  void widen();

 private:
  std::uint64_t seed_;
  std::vector<std::uint64_t> wanted_;
  std::vector<std::uint64_t> limit_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_ASSESS_SAMPLE_DRAW_H_
