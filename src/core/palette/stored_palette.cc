#include "core/palette/stored_palette.h"

#include <algorithm>
#include <cmath>

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/palette/stored_palette.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

#if HWY_TARGET == HWY_SCALAR
std::size_t paint_vectors(const StoredPalette::Samples&, std::size_t, const std::uint8_t*,
                          std::size_t, std::uint32_t, std::byte*) {
  return 0;
}
#else
// Whole vectors only; returns how many pixels are done. A register holds sixteen entries of a
// table, found by the lower half of a number: the upper half says which sixteen.
std::size_t paint_vectors(const StoredPalette::Samples& samples, std::size_t used,
                          const std::uint8_t* numbers, std::size_t n, std::uint32_t channels,
                          std::byte* stored) {
  constexpr std::size_t kEntries = 16;
  const hn::ScalableTag<std::uint8_t> d;
  const std::size_t lanes = hn::Lanes(d);
  auto* to = reinterpret_cast<std::uint8_t*>(stored);
  std::size_t i = 0;
  for (; i + lanes <= n; i += lanes, to += lanes * channels) {
    const auto number = hn::LoadU(d, numbers + i);
    const auto lower = hn::And(number, hn::Set(d, kEntries - 1));
    const auto upper = hn::AndNot(hn::Set(d, kEntries - 1), number);
    auto red = hn::Zero(d), green = red, blue = red, alpha = red;
    for (std::size_t first = 0; first < used; first += kEntries) {
      const auto here = hn::Eq(upper, hn::Set(d, static_cast<std::uint8_t>(first)));
      const auto look_up = [&](std::size_t c, auto before) {
        const auto entries = hn::LoadDup128(d, samples[c].data() + first);
        return hn::IfThenElse(here, hn::TableLookupBytes(entries, lower), before);
      };
      red = look_up(0, red);
      green = look_up(1, green);
      blue = look_up(2, blue);
      if (channels == 4) alpha = look_up(3, alpha);
    }
    if (channels == 4) {
      hn::StoreInterleaved4(red, green, blue, alpha, d, to);
    } else {
      hn::StoreInterleaved3(red, green, blue, d, to);
    }
  }
  return i;
}
#endif

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {
namespace {
HWY_EXPORT(paint_vectors);
}  // namespace

StoredPalette::StoredPalette(const std::vector<Color>& colors) {
  for (const Color& color : colors) {
    const std::array<double, 3> srgb = color.in(spaces::kSrgb);
    for (std::size_t c = 0; c < 3; ++c)
      samples_[c][used_] = static_cast<std::uint8_t>(std::lround(std::clamp(srgb[c], 0.0, 255.0)));
    samples_[3][used_++] = 255;
  }
}

void StoredPalette::paint(const std::uint8_t* numbers, std::size_t n, std::uint32_t channels,
                          std::byte* stored) const {
  std::size_t i =
      HWY_DYNAMIC_DISPATCH(paint_vectors)(samples_, used_, numbers, n, channels, stored);
  for (; i < n; ++i)
    for (std::size_t c = 0; c < channels; ++c)
      stored[i * channels + c] = static_cast<std::byte>(samples_[c][numbers[i]]);
}

}  // namespace chalcedony
#endif
