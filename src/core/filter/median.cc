#include "core/filter/median.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>
#include <limits>
#include <vector>

#include "core/filter/median_of_few.h"

namespace chalcedony {
namespace {

constexpr float kNaN = std::numeric_limits<float>::quiet_NaN();
constexpr std::size_t kCodes = 256;

/// The values of a tile by their rank among those that occur.
struct RankedTile {
  std::size_t width = 0;
  std::vector<std::uint32_t> ranks;  // values.size() for NaN
  std::vector<float> values;         // in rising order

  const std::uint32_t* row(std::size_t y) const { return ranks.data() + y * width; }
  float value_of(std::size_t rank) const { return rank < values.size() ? values[rank] : kNaN; }
};

bool holds_no_nan(const Tile& tile) {
  const float* const first = tile.row(0);
  return std::none_of(first, first + tile.width() * tile.height(),
                      [](float v) { return std::isnan(v); });
}

/// Whether all values are 8-bit codes or NaN.
bool holds_codes(const Tile& tile) {
  const float* const first = tile.row(0);
  return std::all_of(first, first + tile.width() * tile.height(), [](float v) {
    return std::isnan(v) || (v >= 0 && v < kCodes && v == std::floor(v));
  });
}

/// Of codes, which are their own ranks.
RankedTile ranked_codes(const Tile& tile) {
  RankedTile out;
  out.width = tile.width();
  for (std::size_t code = 0; code < kCodes; ++code) out.values.push_back(static_cast<float>(code));
  const float* const first = tile.row(0);
  const std::size_t size = tile.width() * tile.height();
  out.ranks.resize(size);
  std::transform(first, first + size, out.ranks.begin(),
                 [](float v) { return std::isnan(v) ? kCodes : static_cast<std::size_t>(v); });
  return out;
}

RankedTile ranked(const Tile& tile) {
  RankedTile out;
  out.width = tile.width();
  const float* const first = tile.row(0);
  const float* const last = first + tile.width() * tile.height();
  out.ranks.reserve(static_cast<std::size_t>(last - first));
  std::copy_if(first, last, std::back_inserter(out.values), [](float v) { return !std::isnan(v); });
  std::sort(out.values.begin(), out.values.end());
  out.values.erase(std::unique(out.values.begin(), out.values.end()), out.values.end());
  for (const float* v = first; v != last; ++v)
    out.ranks.push_back(
        std::isnan(*v)
            ? static_cast<std::uint32_t>(out.values.size())
            : static_cast<std::uint32_t>(
                  std::lower_bound(out.values.begin(), out.values.end(), *v) - out.values.begin()));
  return out;
}

/// Counts of ranks in the window, and of groups of ranks, so that the middle is found in two short
/// walks. The rank past the last stands for NaN and is counted apart.
class WindowCounts {
 public:
  explicit WindowCounts(std::size_t ranks)
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

/// The window moves on by a column: what leaves at the left of each of its rows is taken out, what
/// enters at the right put in.
template <class Counts>
void moving_window(const RankedTile& tile, const Window& window, Tile& out) {
  Counts counts(tile.values.size());
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

constexpr std::size_t kGroups = 16, kGroupSize = kCodes / kGroups;

/// Counts of groups of codes, or of the codes of a group: narrow, as half the memory is twice as
/// quick.
using Count = std::uint16_t;
using Counts = std::array<Count, kGroups>;

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

/// Each column keeps the counts of its part of the window; the window's are the sum of its
/// columns', so moving on takes one column in and one out, whatever their length.
void counted_columns(const RankedTile& tile, std::size_t side, Tile& out) {
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

}  // namespace

void window_median(const Tile& values, const Window& window, Tile& out) {
  // From here on moving a window of codes on is quicker.
  constexpr std::size_t kFewCodes = 49;
  const bool codes = holds_codes(values);
  if (window.pixels() <= (codes ? kFewCodes : kFewInWindow) && holds_no_nan(values)) {
    median_of_few(values, window, out);
  } else if (!codes) {
    moving_window<WindowCounts>(ranked(values), window, out);
  } else if (window.is_box() && window.pixels() <= std::numeric_limits<Count>::max()) {
    counted_columns(ranked_codes(values), window.rows(), out);
  } else {
    moving_window<CodesInWindow>(ranked_codes(values), window, out);
  }
}

}  // namespace chalcedony
