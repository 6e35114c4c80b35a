#include "core/tidy/element.h"

#include <tbb/parallel_for.h>

#include <algorithm>
#include <cmath>

#include "core/tidy/column_distances.h"

namespace chalcedony {
namespace {

class Grid {
 public:
  Grid(std::uint32_t width, std::uint32_t height) : width_(width), height_(height) {}

  template <class Work>
  void each_row(const Work& work) const {
    tbb::parallel_for(std::size_t{0}, height_, [&](std::size_t y) { work(y * width_); });
  }

  /// Lowers every distance of a row to one more than that of its neighbors.
  void spread_along(std::uint16_t* row) const {
    for (std::size_t x = 1; x < width_; ++x) row[x] = std::min(row[x], next_distance(row[x - 1]));
    for (std::size_t x = width_ - 1; x > 0; --x)
      row[x - 1] = std::min(row[x - 1], next_distance(row[x]));
  }

  /// Distances along lines that go `step` columns to the right from a row to the next.
  Distances slanted_distances(const Flags& on, int step) const {
    Distances out(on.size());
    const auto w = static_cast<std::ptrdiff_t>(width_), h = static_cast<std::ptrdiff_t>(height_);
    const auto pass = [&](std::ptrdiff_t from, std::ptrdiff_t to, std::ptrdiff_t way) {
      for (std::ptrdiff_t y = from; y != to; y += way)
        for (std::ptrdiff_t x = 0; x < w; ++x) {
          const std::ptrdiff_t before = x - way * step, row = y - way;
          const bool inside = before >= 0 && before < w && row >= 0 && row < h;
          const std::uint16_t known =
              inside ? next_distance(out[static_cast<std::size_t>(row * w + before)]) : kFarAway;
          std::uint16_t& own = out[static_cast<std::size_t>(y * w + x)];
          own = std::min(own, known);
        }
    };
    for (std::size_t i = 0; i < on.size(); ++i) out[i] = on[i] ? 0 : kFarAway;
    pass(0, h, 1);
    pass(h - 1, -1, -1);
    return out;
  }

 private:
  std::size_t width_, height_;
};

/// Rows of the disk: which x have a column x' with (x - x')^2 + down[x']^2 <= radius^2.
class DiskRows {
 public:
  explicit DiskRows(double radius) {
    const double square = radius * radius;
    for (std::ptrdiff_t d = 0; static_cast<double>(d * d) <= square; ++d) {
      auto half = static_cast<std::ptrdiff_t>(std::sqrt(square - static_cast<double>(d * d)));
      // The root may be off by a rounding; squares of whole numbers are not.
      while (static_cast<double>((half + 1) * (half + 1) + d * d) <= square) ++half;
      while (static_cast<double>(half * half + d * d) > square) --half;
      halves_.push_back(half);
    }
  }

  /// One sweep to the right, with the farthest that the columns so far reach, and one back.
  void reach(const std::uint16_t* down, std::size_t width, std::uint8_t* out) const {
    const auto columns = static_cast<std::ptrdiff_t>(width);
    std::ptrdiff_t right = -1, left = columns;
    for (std::ptrdiff_t x = 0; x < columns; ++x) {
      if (down[x] < halves_.size()) right = std::max(right, x + halves_[down[x]]);
      out[x] = x <= right;
    }
    for (std::ptrdiff_t x = columns - 1; x >= 0; --x) {
      if (down[x] < halves_.size()) left = std::min(left, x - halves_[down[x]]);
      out[x] |= static_cast<std::uint8_t>(x >= left);
    }
  }

 private:
  /// How far the disk reaches aside, so many rows off its middle.
  std::vector<std::ptrdiff_t> halves_;
};

}  // namespace

Flags reached(const Flags& on, std::uint32_t width, std::uint32_t height, const Element& element) {
  const Grid grid(width, height);
  const auto whole = static_cast<std::uint16_t>(element.radius);
  Flags out(on.size());
  const auto keep_near = [&](Distances& distances, std::size_t at) {
    for (std::size_t i = at; i < at + width; ++i) out[i] = distances[i] <= whole;
  };
  if (element.shape == ElementShape::kLine && element.angle % 90 != 0) {
    // Rows go down, angles count upwards.
    Distances distances = grid.slanted_distances(on, element.angle == 45 ? -1 : 1);
    grid.each_row([&](std::size_t at) { keep_near(distances, at); });
    return out;
  }
  if (element.shape == ElementShape::kLine && element.angle == 0) {
    Distances distances(on.size());
    grid.each_row([&](std::size_t at) {
      for (std::size_t i = at; i < at + width; ++i) distances[i] = on[i] ? 0 : kFarAway;
      grid.spread_along(distances.data() + at);
      keep_near(distances, at);
    });
    return out;
  }
  Distances down = column_distances(on, width);
  if (element.shape == ElementShape::kDisk) {
    const DiskRows disk(element.radius);
    grid.each_row([&](std::size_t at) { disk.reach(down.data() + at, width, out.data() + at); });
    return out;
  }
  grid.each_row([&](std::size_t at) {
    if (element.shape == ElementShape::kBox)
      for (std::size_t i = at; i < at + width; ++i) down[i] = down[i] <= whole ? 0 : kFarAway;
    if (element.shape != ElementShape::kLine) grid.spread_along(down.data() + at);
    keep_near(down, at);
  });
  return out;
}

}  // namespace chalcedony
