#include "core/filter/median_of_few.h"

#include <algorithm>
#include <vector>

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/filter/median_of_few.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

using FloatTag = hn::ScalableTag<float>;
using Floats = hn::Vec<FloatTag>;

HWY_INLINE void put_in_order(Floats& less, Floats& more) {
  const Floats least = hn::Min(less, more);
  more = hn::Max(less, more);
  less = least;
}

// Moves the least of `size` values to the first place and the greatest to the last.
HWY_INLINE void least_first_greatest_last(Floats* values, std::size_t size) {
  const std::size_t half = size / 2, last = size - 1;
  for (std::size_t i = 0; i < half; ++i) put_in_order(values[i], values[last - i]);
  // Now the least is in the first half, the greatest in the second; a middle one may be either.
  Floats least = values[0], greatest = values[last];
  for (std::size_t i = 1; i < size - half; ++i) put_in_order(least, values[i]);
  for (std::size_t i = half; i < last; ++i) put_in_order(values[i], greatest);
  values[0] = least;
  values[last] = greatest;
}

// The median of `count` vectors that lie at `places` after `at`.
HWY_INLINE Floats median_at(const float* at, const std::ptrdiff_t* places, std::size_t count) {
  const FloatTag d;
  Floats values[kFewInWindow / 2 + 2];
  const std::size_t kept = count / 2 + 2;
  for (std::size_t i = 0; i < kept; ++i) values[i] = hn::LoadU(d, at + places[i]);
  std::size_t size = kept;
  for (std::size_t next = kept; next < count; ++next, --size) {
    least_first_greatest_last(values, size);
    // The place of the least is taken by the newcomer, that of the greatest is given up.
    values[0] = hn::LoadU(d, at + places[next]);
  }
  least_first_greatest_last(values, 3);
  return values[1];
}

// One row of medians; the places are those of the window's pixels around a pixel.
void median_row(const float* centers, const std::vector<std::ptrdiff_t>& places, std::size_t n,
                float* out) {
  const FloatTag d;
  const std::size_t lanes = hn::Lanes(d), count = places.size();
  std::size_t x = 0;
  for (; x + lanes <= n; x += lanes)
    hn::StoreU(median_at(centers + x, places.data(), count), d, out + x);
  if (x == n) return;
  // The last ones again with some of those before; a row shorter than a vector one by one.
  if (n >= lanes) {
    x = n - lanes;
    hn::StoreU(median_at(centers + x, places.data(), count), d, out + x);
    return;
  }
  std::vector<float> values(count);
  for (; x < n; ++x) {
    for (std::size_t i = 0; i < count; ++i)
      values[i] = centers[static_cast<std::ptrdiff_t>(x) + places[i]];
    const auto middle = values.begin() + static_cast<std::ptrdiff_t>(count / 2);
    std::nth_element(values.begin(), middle, values.end());
    out[x] = *middle;
  }
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {
namespace {
HWY_EXPORT(median_row);
}  // namespace

void median_of_few(const Tile& values, const Window& window, Tile& out) {
  const auto reach = static_cast<std::ptrdiff_t>(window.reach());
  const auto stride = static_cast<std::ptrdiff_t>(values.width());
  std::vector<std::ptrdiff_t> places;
  for (std::ptrdiff_t dy = -reach; dy <= reach; ++dy) {
    const auto half =
        static_cast<std::ptrdiff_t>(window.half_width(static_cast<std::size_t>(dy + reach)));
    for (std::ptrdiff_t dx = -half; dx <= half; ++dx) places.push_back(dy * stride + dx);
  }
  for (std::size_t y = 0; y < out.height(); ++y) {
    const float* const centers = values.row(y + window.reach()) + reach;
    if (places.size() == 1) {
      std::copy_n(centers, out.width(), out.row(y));
    } else {
      HWY_DYNAMIC_DISPATCH(median_row)(centers, places, out.width(), out.row(y));
    }
  }
}

}  // namespace chalcedony
#endif
