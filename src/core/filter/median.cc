#include "core/filter/median.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>
#include <limits>
#include <vector>

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
};

bool is_code(float v) { return v >= 0 && v < kCodes && v == std::floor(v); }

RankedTile ranked(const Tile& tile) {
  RankedTile out;
  out.width = tile.width();
  const float* const first = tile.row(0);
  const float* const last = first + tile.width() * tile.height();
  out.ranks.reserve(static_cast<std::size_t>(last - first));
  if (std::all_of(first, last, [](float v) { return std::isnan(v) || is_code(v); })) {
    for (std::size_t code = 0; code < kCodes; ++code)
      out.values.push_back(static_cast<float>(code));
    for (const float* v = first; v != last; ++v)
      out.ranks.push_back(std::isnan(*v) ? kCodes : static_cast<std::uint32_t>(*v));
    return out;
  }
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

/// The window moves on by a column: what leaves at the left of each of its rows is taken out, what
/// enters at the right put in.
void moving_window(const RankedTile& tile, const Window& window, Tile& out) {
  WindowCounts counts(tile.values.size());
  const std::size_t reach = window.reach();
  for (std::size_t y = 0; y < out.height(); ++y) {
    counts.clear();
    for (std::size_t r = 0; r < window.rows(); ++r) {
      const std::uint32_t* const row = tile.row(y + r) + reach;
      const std::size_t half = window.half_width(r);
      std::for_each(row - half, row + half + 1, [&](std::uint32_t rank) { counts.add(rank); });
    }
    for (std::size_t x = 0; x < out.width(); ++x) {
      const std::size_t rank = counts.median();
      out.row(y)[x] = rank == tile.values.size() ? kNaN : tile.values[rank];
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

/// Counts of 8-bit codes and of groups of 16 of them.
struct CodeCounts {
  std::array<std::uint32_t, kGroups> groups{};
  std::array<std::uint32_t, kCodes> codes{};

  void add(const CodeCounts& other) {
    for (std::size_t i = 0; i < kGroups; ++i) groups[i] += other.groups[i];
    for (std::size_t i = 0; i < kCodes; ++i) codes[i] += other.codes[i];
  }
  void remove(const CodeCounts& other) {
    for (std::size_t i = 0; i < kGroups; ++i) groups[i] -= other.groups[i];
    for (std::size_t i = 0; i < kCodes; ++i) codes[i] -= other.codes[i];
  }
  void count(std::uint32_t code, std::uint32_t by) {
    if (code == kCodes) return;
    codes[code] += by;
    groups[code / kGroupSize] += by;
  }
  float median() const {
    std::uint32_t present = 0;
    for (const std::uint32_t group : groups) present += group;
    if (present == 0) return kNaN;
    std::uint32_t below = (present + 1) / 2;
    std::size_t code = 0;
    for (std::size_t g = 0; groups[g] < below; ++g) below -= groups[g], code += kGroupSize;
    while (codes[code] < below) below -= codes[code++];
    return static_cast<float>(code);
  }
};

/// Each column keeps the counts of its part of the window; the window's are the sum of its
/// columns', so moving on takes one column in and one out, whatever their length.
void counted_columns(const RankedTile& tile, std::size_t side, Tile& out) {
  std::vector<CodeCounts> columns(tile.width);
  for (std::size_t y = 0; y + 1 < side; ++y)
    for (std::size_t x = 0; x < tile.width; ++x) columns[x].count(tile.row(y)[x], 1);
  for (std::size_t y = 0; y < out.height(); ++y) {
    for (std::size_t x = 0; x < tile.width; ++x) columns[x].count(tile.row(y + side - 1)[x], 1);
    CodeCounts window;
    for (std::size_t x = 0; x + 1 < side; ++x) window.add(columns[x]);
    for (std::size_t x = 0; x < out.width(); ++x) {
      window.add(columns[x + side - 1]);
      out.row(y)[x] = window.median();
      window.remove(columns[x]);
    }
    for (std::size_t x = 0; x < tile.width; ++x)
      columns[x].count(tile.row(y)[x], static_cast<std::uint32_t>(-1));
  }
}

}  // namespace

void window_median(const Tile& values, const Window& window, Tile& out) {
  // Below this side, moving a small window on is cheaper than adding and taking away whole columns.
  constexpr std::size_t kShortSide = 31;
  const RankedTile tile = ranked(values);
  if (window.is_box() && tile.values.size() == kCodes && window.rows() > kShortSide) {
    counted_columns(tile, window.rows(), out);
  } else {
    moving_window(tile, window, out);
  }
}

}  // namespace chalcedony
