// Exact percentiles of float values in two passes over a picture, in memory that does not grow
// with it.
#ifndef CHALCEDONY_CORE_STATS_RANKS_H_
#define CHALCEDONY_CORE_STATS_RANKS_H_

#include <cstddef>
#include <cstdint>
#include <optional>
#include <vector>

#include "core/pixel/block.h"

namespace chalcedony {

/// The place, from 1 on, of the smallest of n sorted values that at least p percent of them do not
/// exceed: the nearest rank, for 0 <= p <= 100 and n of 1 or more.
std::uint64_t nearest_rank(double p, std::uint64_t n);

/// Finds nearest-rank percentiles by the bits of the values: floats sort like their bit patterns
/// once those are mapped to unsigned numbers. The first pass counts the upper 16 bits; the second
/// counts the lower 16 within the few upper values that hold a wanted rank. When all lower bits
/// are zero, as for 8-bit codes, the first pass is enough.
class Ranks {
 public:
  Ranks();

  /// First pass: counts the counted pixels of a Block that are numbers, by their weights.
  void add_coarse(const Block& block, const float* values);
  void merge_coarse(const Ranks& other);

  /// Ends the first pass for these percentiles (0 < p <= 100), at most 255 of them. True when a
  /// second pass is needed.
  bool refine(const std::vector<double>& percentiles);

  /// Second pass, in the same manner.
  void add_fine(const Block& block, const float* values);
  void merge_fine(const Ranks& other);

  std::uint64_t total() const { return total_; }

  /// The smallest value with at least p percent of the values at or below it; nothing when there
  /// are no values.
  std::optional<float> percentile(double p) const;

 private:
  std::vector<std::uint64_t> coarse_;
  // Counts of the lower bits, for the upper values that hold a wanted rank; and for each upper
  // value which of those it is, after 0 for none.
  std::vector<std::vector<std::uint64_t>> fine_;
  std::vector<std::uint8_t> fine_of_upper_;
  std::uint64_t total_ = 0;
  std::uint32_t low_bits_ = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_STATS_RANKS_H_
