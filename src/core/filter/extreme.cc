#include "core/filter/extreme.h"

#include <algorithm>
#include <limits>
#include <map>
#include <utility>
#include <vector>

#include "core/filter/extreme_rows.h"

namespace chalcedony {
namespace {

/// Extremes across, of windows that grow: of half the width h there are those around every pixel
/// but the h outer ones.
class WideningExtremes {
 public:
  WideningExtremes(const Tile& values, Extreme which) : tile_(values), which_(which) {}

  /// Three windows side by side or overlapping are one up to three times as wide, two are where
  /// they overlap; so few steps reach any width.
  void widen_to(std::size_t half) {
    while (half_ < half) {
      const std::size_t more = std::min(half - half_, 2 * half_ + 1);
      const std::size_t n = tile_.width() - 2 * (half_ + more);
      for (std::size_t y = 0; y < tile_.height(); ++y) {
        float* const row = tile_.row(y);
        if (more > half_) extreme_with_ahead(which_, row, more, n + more);
        extreme_with_ahead(which_, row, more > half_ ? more : 2 * more, n);
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
  Extreme which_;
  std::size_t half_ = 0;
};

/// out[y] = the extremes of rows y to y + side - 1, a whole row at a time.
///
/// Source    van Herk (1992), Gil and Werman (1993): maxima from the start and to the end of pieces
void down(Tile values, Extreme which, std::size_t side, Tile& out) {
  const std::size_t n = values.height(), width = out.width();
  Tile from_bottom = values, from_top = std::move(values);
  const auto take = [&](Tile& tile, std::size_t y, std::size_t before) {
    const float* const rows[] = {tile.row(y), tile.row(before)};
    extreme_of_rows(which, rows, width, tile.row(y));
  };
  for (std::size_t start = 0; start < n; start += side) {
    const std::size_t end = std::min(n, start + side);
    for (std::size_t y = start + 1; y < end; ++y) take(from_top, y, y - 1);
    for (std::size_t y = end - 1; y-- > start;) take(from_bottom, y, y + 1);
  }
  for (std::size_t y = 0; y < out.height(); ++y) {
    const float* const rows[] = {from_bottom.row(y), from_top.row(y + side - 1)};
    extreme_of_rows(which, rows, width, out.row(y));
  }
}

}  // namespace

float absent_from(Extreme which) {
  constexpr float kInfinity = std::numeric_limits<float>::infinity();
  return which == Extreme::kLeast ? kInfinity : -kInfinity;
}

void window_extreme(const Tile& values, Extreme which, const Window& window, Tile& out) {
  const std::size_t reach = window.reach();
  WideningExtremes extremes(values, which);
  if (window.is_box()) {
    extremes.widen_to(reach);
    return down(extremes.take(), which, window.rows(), out);
  }
  // Rows of one width share their extremes across.
  std::map<std::size_t, std::vector<std::size_t>> rows_of_width;
  for (std::size_t r = 0; r < window.rows(); ++r) rows_of_width[window.half_width(r)].push_back(r);
  bool first = true;
  for (const auto& [half, rows] : rows_of_width) {
    extremes.widen_to(half);
    for (std::size_t y = 0; y < out.height(); ++y) {
      std::vector<const float*> around;
      if (!first) around.push_back(out.row(y));
      for (const std::size_t r : rows) around.push_back(extremes.from(y + r, reach));
      extreme_of_rows(which, around, out.width(), out.row(y));
    }
    first = false;
  }
}

}  // namespace chalcedony
