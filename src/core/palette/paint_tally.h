// How a picture is painted with a palette.
#ifndef CHALCEDONY_CORE_PALETTE_PAINT_TALLY_H_
#define CHALCEDONY_CORE_PALETTE_PAINT_TALLY_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/learn/class_tally.h"
#include "core/stats/distance_sums.h"

namespace chalcedony {

/// How many pixels got each color, and how far they are from it. Add rows in picture order and the
/// result is the same for any number of threads.
class PaintTally {
 public:
  explicit PaintTally(std::size_t colors = 0) : colors_(colors) {}

  /// Adds n pixels: the number of the color of each, 1 for the first and 0 for none, and its
  /// distance from it.
  void add(const std::uint8_t* numbers, const float* errors, std::size_t n);
  PaintTally& operator+=(const PaintTally& other);

  /// The pixels of each color since the last call.
  std::vector<std::uint64_t> take_counts();
  /// Of the pixels that got one.
  DistanceSummary errors() const { return errors_.summary(); }

 private:
  ClassTally colors_;  // 0 is no color
  DistanceSums errors_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PALETTE_PAINT_TALLY_H_
