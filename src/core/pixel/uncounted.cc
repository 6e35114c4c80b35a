#include "core/pixel/uncounted.h"

#include <algorithm>

namespace chalcedony {
namespace {

template <class Number>
void clear(const Block& block, Number* labels) {
  if (!block.counted) return;
  const std::uint8_t* const __restrict counted = block.counted;
  // Multiplied, which vectors can do without asking.
  for (std::size_t i = 0; i < block.size; ++i)
    labels[i] = static_cast<Number>(labels[i] * counted[i]);
}

}  // namespace

void clear_uncounted(const Block& block, std::uint8_t* labels) { clear(block, labels); }
void clear_uncounted(const Block& block, Label* labels) { clear(block, labels); }

void fill_uncounted(const Block& block, float value, float* plane) {
  if (!block.counted) return;
  for (std::size_t i = 0; i < block.size; ++i) {
    const float own = plane[i];
    plane[i] = block.counted[i] ? own : value;
  }
}

void fade_uncounted(const Block& block, const ConstPlanes& srgb, const Planes& faded) {
  constexpr float kLeft = 0.25f, kWhite = 255.0f;
  for (std::size_t c = 0; c < 3; ++c) {
    const float* const __restrict own = srgb[c];
    float* const __restrict shown = faded[c];
    std::copy_n(own, block.size, shown);
    if (!block.counted) continue;
    for (std::size_t i = 0; i < block.size; ++i) {
      const float value = own[i];
      shown[i] = block.counted[i] ? value : kWhite - kLeft * (kWhite - value);
    }
  }
}

}  // namespace chalcedony
