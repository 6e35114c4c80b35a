#include "core/filter/box_median.h"

#include <array>
#include <cstdint>
#include <limits>
#include <vector>

namespace chalcedony {
namespace {

constexpr std::size_t kGroups = 16, kGroupSize = kCodes / kGroups;

/// Counts of groups of codes, or of the codes of a group: narrow, as half the memory is twice as
/// quick.
using Count = std::uint16_t;
using Counts = std::array<Count, kGroups>;
static_assert(kLargestBoxSide * kLargestBoxSide <= std::numeric_limits<Count>::max());

void add(Counts& to, const Counts& from) {
  for (std::size_t i = 0; i < to.size(); ++i) to[i] = static_cast<Count>(to[i] + from[i]);
}
void take(Counts& to, const Counts& from) {
  for (std::size_t i = 0; i < to.size(); ++i) to[i] = static_cast<Count>(to[i] - from[i]);
}

/// What the window holds of each column of a tile: counts of 8-bit codes and of groups of 16 of
/// them. Those of one group lie side by side for all columns.
class ColumnCounts {
 public:
  explicit ColumnCounts(std::size_t width)
      : width_(width), groups_(width), codes_(width * kGroups) {}

  void count_row(const std::uint32_t* codes, int by) {
    for (std::size_t x = 0; x < width_; ++x) {
      const std::size_t code = codes[x], group = code / kGroupSize;
      if (code == kCodes) continue;  // not a number
      Count& own = codes_[group * width_ + x][code % kGroupSize];
      own = static_cast<Count>(own + by);
      groups_[x][group] = static_cast<Count>(groups_[x][group] + by);
    }
  }
  const Counts& groups(std::size_t x) const { return groups_[x]; }
  const Counts& codes(std::size_t x, std::size_t group) const { return codes_[group * width_ + x]; }

 private:
  std::size_t width_;
  std::vector<Counts> groups_, codes_;
};

/// The window as it moves along a row, as sums over its columns. The codes of a group are brought
/// up to date when the median lies among them.
class CountedWindow {
 public:
  /// Stands before the first column.
  CountedWindow(const ColumnCounts& columns, std::size_t side) : columns_(columns), side_(side) {
    known_from_.fill(kUnknown);
    for (std::size_t x = 0; x + 1 < side; ++x) add(groups_, columns.groups(x));
  }

  /// The median of columns x to x + side - 1, kCodes when nothing is there; x is 0 first, and one
  /// more with each call.
  std::size_t median_from(std::size_t x) {
    add(groups_, columns_.groups(x + side_ - 1));
    const std::size_t median = median_in(x);
    take(groups_, columns_.groups(x));
    return median;
  }

 private:
  static constexpr std::size_t kUnknown = ~std::size_t{0};

  std::size_t median_in(std::size_t x) {
    std::uint32_t present = 0;
    for (const Count group : groups_) present += group;
    if (present == 0) return kCodes;
    std::uint32_t below = (present + 1) / 2;
    std::size_t group = 0;
    while (groups_[group] < below) below -= groups_[group++];
    bring_up_to(x, group);
    std::size_t code = 0;
    while (codes_[group][code] < below) below -= codes_[group][code++];
    return group * kGroupSize + code;
  }

  void bring_up_to(std::size_t x, std::size_t group) {
    Counts& codes = codes_[group];
    std::size_t& from = known_from_[group];
    if (from == kUnknown || x - from >= side_ / 2) {
      codes.fill(0);
      for (std::size_t c = x; c < x + side_; ++c) add(codes, columns_.codes(c, group));
    } else {
      for (; from < x; ++from) {
        add(codes, columns_.codes(from + side_, group));
        take(codes, columns_.codes(from, group));
      }
    }
    from = x;
  }

  const ColumnCounts& columns_;
  std::size_t side_;
  Counts groups_{};
  std::array<Counts, kGroups> codes_;
  std::array<std::size_t, kGroups> known_from_;  // the first column of a group's codes
};

}  // namespace

void box_median_of_codes(const RankedTile& tile, std::size_t side, Tile& out) {
  ColumnCounts columns(tile.width);
  for (std::size_t y = 0; y + 1 < side; ++y) columns.count_row(tile.row(y), 1);
  for (std::size_t y = 0; y < out.height(); ++y) {
    columns.count_row(tile.row(y + side - 1), 1);
    CountedWindow window(columns, side);
    for (std::size_t x = 0; x < out.width(); ++x)
      out.row(y)[x] = tile.value_of(window.median_from(x));
    columns.count_row(tile.row(y), -1);
  }
}

}  // namespace chalcedony
