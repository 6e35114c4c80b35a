#include "core/filter/moving_median.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>
#include <vector>

namespace chalcedony {
namespace {

/// Counts of ranks in the window, and of groups of ranks, so that the middle is found in two short
/// walks. The rank past the last stands for NaN and is counted apart.
class RanksInWindow {
 public:
  explicit RanksInWindow(std::size_t ranks)
      : group_(std::max<std::size_t>(
            16, static_cast<std::size_t>(std::sqrt(static_cast<double>(ranks))))),
        absent_(ranks),
        counts_(ranks + 1),
        groups_(ranks / group_ + 1) {}

  void clear() {
    std::fill(counts_.begin(), counts_.end(), 0u);
    std::fill(groups_.begin(), groups_.end(), 0u);
    present_ = 0;
  }
  void add(std::size_t rank) {
    ++counts_[rank];
    if (rank == absent_) return;
    ++groups_[rank / group_];
    ++present_;
  }
  void remove(std::size_t rank) {
    --counts_[rank];
    if (rank == absent_) return;
    --groups_[rank / group_];
    --present_;
  }
  /// The rank of the median, or the number of ranks when nothing is there.
  std::size_t median() const {
    if (present_ == 0) return absent_;
    std::size_t below = (present_ + 1) / 2, rank = 0;
    for (std::size_t g = 0; groups_[g] < below; ++g) below -= groups_[g], rank += group_;
    while (counts_[rank] < below) below -= counts_[rank++];
    return rank;
  }

 private:
  std::size_t group_, absent_;
  std::vector<std::uint32_t> counts_, groups_;
  std::size_t present_ = 0;
};

/// The same of 8-bit codes: the median of one window is sought from that of the window before.
class CodesInWindow {
 public:
  explicit CodesInWindow(std::size_t) {}

  void clear() { *this = CodesInWindow(kCodes); }
  void add(std::size_t code) {
    ++counts_[code];
    present_ += code < kCodes;
    below_ += code < median_;
  }
  void remove(std::size_t code) {
    --counts_[code];
    present_ -= code < kCodes;
    below_ -= code < median_;
  }
  std::size_t median() {
    if (present_ == 0) return kCodes;
    const std::size_t wanted = (present_ + 1) / 2;
    while (below_ >= wanted) below_ -= counts_[--median_];
    while (below_ + counts_[median_] < wanted) below_ += counts_[median_++];
    return median_;
  }

 private:
  std::array<std::uint32_t, kCodes + 1> counts_{};  // the last of NaN
  std::size_t median_ = 0, below_ = 0, present_ = 0;
};

template <class InWindow>
void move_window(const RankedTile& tile, const Window& window, Tile& out) {
  InWindow counts(tile.values.size());
  const std::size_t reach = window.reach();
  for (std::size_t y = 0; y < out.height(); ++y) {
    counts.clear();
    for (std::size_t r = 0; r < window.rows(); ++r) {
      const std::uint32_t* const row = tile.row(y + r) + reach;
      const std::size_t half = window.half_width(r);
      std::for_each(row - half, row + half + 1, [&](std::uint32_t rank) { counts.add(rank); });
    }
    for (std::size_t x = 0; x < out.width(); ++x) {
      out.row(y)[x] = tile.value_of(counts.median());
      if (x + 1 == out.width()) break;
      for (std::size_t r = 0; r < window.rows(); ++r) {
        const std::uint32_t* const row = tile.row(y + r) + reach + x;
        counts.remove(row[-static_cast<std::ptrdiff_t>(window.half_width(r))]);
        counts.add(row[window.half_width(r) + 1]);
      }
    }
  }
}

}  // namespace

void moving_median(const RankedTile& tile, const Window& window, Tile& out) {
  move_window<RanksInWindow>(tile, window, out);
}

void moving_median_of_codes(const RankedTile& tile, const Window& window, Tile& out) {
  move_window<CodesInWindow>(tile, window, out);
}

}  // namespace chalcedony
