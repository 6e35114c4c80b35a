#include "core/palette/paint_tally.h"

#include <algorithm>
#include <array>
#include <limits>

#include "core/planes.h"

namespace chalcedony {

void PaintTally::add(const std::uint8_t* numbers, const float* errors, std::size_t n) {
  colors_.add(numbers, n);
  std::array<float, kBlockPixels> known;
  for (std::size_t first = 0; first < n; first += kBlockPixels) {
    const std::size_t size = std::min(kBlockPixels, n - first);
    for (std::size_t i = 0; i < size; ++i) {
      const float error = errors[first + i];
      known[i] = numbers[first + i] != 0 ? error : std::numeric_limits<float>::quiet_NaN();
    }
    errors_.add(known.data(), size);
  }
}

PaintTally& PaintTally::operator+=(const PaintTally& other) {
  colors_ += other.colors_;
  errors_ += other.errors_;
  return *this;
}

std::vector<std::uint64_t> PaintTally::take_counts() {
  std::vector<std::uint64_t> counts = colors_.take();
  counts.erase(counts.begin());
  return counts;
}

}  // namespace chalcedony
