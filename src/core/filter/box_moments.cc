#include "core/filter/box_moments.h"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <limits>
#include <vector>

namespace chalcedony {
namespace {

/// Sums of some numbers, from which others can be taken away again.
struct Sums {
  double values = 0, squares = 0;
  std::int64_t count = 0;

  void add(float value, int sign) {
    if (value != value) return;
    const auto v = static_cast<double>(value);
    values += sign * v;
    squares += sign * v * v;
    count += sign;
  }
  void add(const Sums& other, int sign) {
    values += sign * other.values;
    squares += sign * other.squares;
    count += sign * other.count;
  }
  float mean() const {
    return count == 0 ? std::numeric_limits<float>::quiet_NaN()
                      : static_cast<float>(values / static_cast<double>(count));
  }
  float deviation() const {
    if (count == 0) return std::numeric_limits<float>::quiet_NaN();
    const double n = static_cast<double>(count), mean = values / n;
    return static_cast<float>(std::sqrt(std::max(0.0, squares / n - mean * mean)));
  }
};

}  // namespace

void box_moments(const Tile& values, std::size_t margin, std::size_t reach, float* means,
                 float* deviations) {
  const std::size_t width = values.width() - 2 * margin, height = values.height() - 2 * margin;
  const std::size_t first = margin - reach, side = 2 * reach + 1;
  std::vector<Sums> columns(width + 2 * reach);
  const auto add_row = [&](std::size_t y, int sign) {
    const float* const row = values.row(y) + first;
    for (std::size_t x = 0; x < columns.size(); ++x) columns[x].add(row[x], sign);
  };
  for (std::size_t y = first; y < first + side - 1; ++y) add_row(y, 1);
  for (std::size_t y = 0; y < height; ++y) {
    add_row(first + y + side - 1, 1);
    Sums box;
    for (std::size_t x = 0; x < side - 1; ++x) box.add(columns[x], 1);
    for (std::size_t x = 0; x < width; ++x) {
      box.add(columns[x + side - 1], 1);
      if (means) *means++ = box.mean();
      if (deviations) *deviations++ = box.deviation();
      box.add(columns[x], -1);
    }
    add_row(first + y, -1);
  }
}

}  // namespace chalcedony
