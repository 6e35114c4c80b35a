#include "core/stats/difference_tally.h"

#include <algorithm>
#include <bit>
#include <cmath>
#include <limits>

#include "core/pixel/uncounted.h"

namespace chalcedony {

void leave_out_uncounted(const Block& first, const Block& second, float* differences) {
  constexpr float kNone = std::numeric_limits<float>::quiet_NaN();
  fill_uncounted(first, kNone, differences);
  fill_uncounted(second, kNone, differences);
  // Of an infinite number alone, less itself is not 0.
  for (std::size_t i = 0; i < first.size; ++i) differences[i] += differences[i] - differences[i];
}

void differences_as_gray(const float* __restrict differences, std::size_t n, double most,
                         float* __restrict gray) {
  const auto scale = static_cast<float>(255 / most);
  for (std::size_t i = 0; i < n; ++i) {
    const float shown = differences[i] * scale;
    gray[i] = shown > 0.0f ? std::min(shown, 255.0f) : 0.0f;
  }
}

DifferenceTally::DifferenceTally(double steps, double tolerance)
    : sums_(steps), tolerance_(static_cast<float>(tolerance)) {
  if (static_cast<double>(tolerance_) > tolerance) tolerance_ = std::nextafter(tolerance_, 0.0f);
}

void DifferenceTally::add(const float* differences, std::size_t n, std::uint64_t first_pixel) {
  sums_.add(differences, n);
  // The bits of numbers from 0 on rise with them, and end below those of what is not a number.
  constexpr auto kLast = std::bit_cast<std::int32_t>(std::numeric_limits<float>::infinity());
  const auto limit = std::bit_cast<std::int32_t>(tolerance_);
  std::int32_t above = 0, largest = -1;
  for (std::size_t i = 0; i < n; ++i) {
    const auto bits = std::bit_cast<std::int32_t>(differences[i]);
    above += (bits > limit) & (bits <= kLast);
    largest = std::max(largest, bits <= kLast ? bits : -1);
  }
  above_ += static_cast<std::uint32_t>(above);
  if (largest <= largest_) return;
  largest_ = largest;
  const float* const at = std::find(differences, differences + n, std::bit_cast<float>(largest));
  largest_pixel_ = first_pixel + static_cast<std::uint64_t>(at - differences);
}

DifferenceTally& DifferenceTally::operator+=(const DifferenceTally& later) {
  sums_ += later.sums_;
  above_ += later.above_;
  if (later.largest_ > largest_) {
    largest_ = later.largest_;
    largest_pixel_ = later.largest_pixel_;
  }
  return *this;
}

}  // namespace chalcedony
