#include "core/filter/extreme.h"

#include <algorithm>
#include <limits>
#include <map>
#include <utility>
#include <vector>

namespace chalcedony {
namespace {

struct Least {
  float operator()(float a, float b) const { return a < b ? a : b; }
};
struct Greatest {
  float operator()(float a, float b) const { return a > b ? a : b; }
};

template <class Pick>
void pick_into(float* row, const float* other, std::size_t n) {
  for (std::size_t x = 0; x < n; ++x) row[x] = Pick()(row[x], other[x]);
}

/// Of each value and the one so far ahead. What is ahead has not been written yet, so that vectors
/// give the same.
template <class Pick>
void pick_ahead(float* row, std::size_t ahead, std::size_t n) {
#ifdef __clang__
#pragma clang loop vectorize(assume_safety)
#else
#pragma GCC ivdep
#endif
  for (std::size_t x = 0; x < n; ++x) row[x] = Pick()(row[x], row[x + ahead]);
}

/// Extremes across, of windows that grow: of half the width h there are those around every pixel
/// but the h outer ones.
template <class Pick>
class WideningExtremes {
 public:
  explicit WideningExtremes(const Tile& values) : tile_(values) {}

  /// Three windows side by side or overlapping are one up to three times as wide, two are where
  /// they overlap; so few steps reach any width.
  void widen_to(std::size_t half) {
    while (half_ < half) {
      const std::size_t more = std::min(half - half_, 2 * half_ + 1);
      const std::size_t n = tile_.width() - 2 * (half_ + more);
      for (std::size_t y = 0; y < tile_.height(); ++y) {
        float* const row = tile_.row(y);
        if (more > half_) pick_ahead<Pick>(row, more, n + more);
        pick_ahead<Pick>(row, more > half_ ? more : 2 * more, n);
      }
      half_ += more;
    }
  }

  /// All of them, from the left.
  Tile take() { return std::move(tile_); }
  /// Of row y, the first that is so far from the side of the tile.
  const float* from(std::size_t y, std::size_t center) const {
    return tile_.row(y) + center - half_;
  }

 private:
  Tile tile_;
  std::size_t half_ = 0;
};

/// out[y] = the extremes of rows y to y + side - 1, a whole row at a time.
///
/// Source    van Herk (1992), Gil and Werman (1993): maxima from the start and to the end of pieces
template <class Pick>
void down(Tile values, std::size_t side, Tile& out) {
  const std::size_t n = values.height(), width = out.width();
  Tile from_bottom = values, from_top = std::move(values);
  for (std::size_t start = 0; start < n; start += side) {
    const std::size_t end = std::min(n, start + side);
    for (std::size_t y = start + 1; y < end; ++y)
      pick_into<Pick>(from_top.row(y), from_top.row(y - 1), width);
    for (std::size_t y = end - 1; y-- > start;)
      pick_into<Pick>(from_bottom.row(y), from_bottom.row(y + 1), width);
  }
  for (std::size_t y = 0; y < out.height(); ++y) {
    std::copy_n(from_bottom.row(y), width, out.row(y));
    pick_into<Pick>(out.row(y), from_top.row(y + side - 1), width);
  }
}

template <class Pick>
void extreme_in(const Tile& values, const Window& window, Tile& out) {
  const std::size_t reach = window.reach();
  WideningExtremes<Pick> extremes(values);
  if (window.is_box()) {
    extremes.widen_to(reach);
    return down<Pick>(extremes.take(), window.rows(), out);
  }
  // Rows of one width share their extremes across.
  std::map<std::size_t, std::vector<std::size_t>> rows_of_width;
  for (std::size_t r = 0; r < window.rows(); ++r) rows_of_width[window.half_width(r)].push_back(r);
  bool first = true;
  for (const auto& [half, rows] : rows_of_width) {
    extremes.widen_to(half);
    for (const std::size_t r : rows) {
      for (std::size_t y = 0; y < out.height(); ++y) {
        if (first) {
          std::copy_n(extremes.from(y + r, reach), out.width(), out.row(y));
        } else {
          pick_into<Pick>(out.row(y), extremes.from(y + r, reach), out.width());
        }
      }
      first = false;
    }
  }
}

}  // namespace

float absent_from(Extreme which) {
  constexpr float kInfinity = std::numeric_limits<float>::infinity();
  return which == Extreme::kLeast ? kInfinity : -kInfinity;
}

void window_extreme(const Tile& values, Extreme which, const Window& window, Tile& out) {
  if (which == Extreme::kLeast) {
    extreme_in<Least>(values, window, out);
  } else {
    extreme_in<Greatest>(values, window, out);
  }
}

}  // namespace chalcedony
