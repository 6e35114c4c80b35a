// Rows and columns at the edge of a picture that are unlike all others: scan edges, frames.
#ifndef CHALCEDONY_CORE_STATS_EDGE_LINES_H_
#define CHALCEDONY_CORE_STATS_EDGE_LINES_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/pixel/block.h"

namespace chalcedony {

/// How many outer lines of each side differ from the lines inside; 0 for none.
struct EdgeLines {
  std::size_t top = 0, bottom = 0, left = 0, right = 0;
};

/// Sums of the rows and columns of a picture. Add Blocks, then bands, in picture order.
class LineSums {
 public:
  /// Lines at a side that are looked at.
  static constexpr std::size_t kMostLines = 8;

  LineSums(std::uint32_t width, std::uint32_t height);

  /// The mean of the three planes, of pixels that count.
  void add(const Block& block, const ConstPlanes& planes);
  LineSums& operator+=(const LineSums& later);

  /// Outer lines, one after the other from the edge, whose mean lies more than 6 robust standard
  /// deviations (1.4826 times the median of absolute deviations, at least `least_spread`) from the
  /// median of the lines inside. A side with more than kMostLines of them has none, and so has a
  /// picture with fewer than 4 * kMostLines lines that way.
  EdgeLines edges(double least_spread) const;

 private:
  /// Of each line: the sum of all three planes, and the pixels.
  struct Lines {
    explicit Lines(std::size_t lines) : sums(lines), counts(lines) {}
    std::vector<double> sums;
    std::vector<std::uint64_t> counts;
  };
  static std::size_t differing(const Lines& lines, bool from_end, double least_spread);

  Lines rows_, columns_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_STATS_EDGE_LINES_H_
