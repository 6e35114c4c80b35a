// How many different colors there are, of pictures that have too many to keep a bit for each.
#ifndef CHALCEDONY_CORE_STATS_DISTINCT_COLORS_H_
#define CHALCEDONY_CORE_STATS_DISTINCT_COLORS_H_

#include <cstddef>
#include <cstdint>
#include <optional>

#include "core/pixel/block.h"
#include "core/pixel/large_vector.h"

namespace chalcedony {

/// Counts up to kMost of them, and gives up then. Colors are told apart by 64 bits drawn from their
/// values: of a million, two are taken for one with a chance of 3e-8.
///
/// Cost      at most 16 MB
class DistinctColors {
 public:
  static constexpr std::size_t kMost = std::size_t{1} << 20;

  /// Adds the colors of the pixels that count.
  void add(const Block& block);
  /// In any order.
  void merge(const DistinctColors& other);

  /// Nothing when there are more than kMost.
  std::optional<std::size_t> count() const;

 private:
  /// Where this mark stands, or can.
  std::uint64_t& place_of(std::uint64_t mark);
  void insert(std::uint64_t mark);
  void grow();

  LargeVector<std::uint64_t> marks_;  // open addressing; 0 is free
  std::size_t count_ = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_STATS_DISTINCT_COLORS_H_
