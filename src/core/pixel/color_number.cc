#include "core/pixel/color_number.h"

#include <bit>

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/pixel/color_number.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#ifndef CHALCEDONY_CORE_PIXEL_COLOR_NUMBER_CC_
#define CHALCEDONY_CORE_PIXEL_COLOR_NUMBER_CC_
namespace chalcedony {
/// What the low and the high half of a channel's byte give to each byte of the number, as tables of
/// sixteen that vectors look up: [channel][half][byte of the number][value of the half].
inline constexpr auto kNumberBytes = [] {
  std::array<std::array<std::array<std::array<std::uint8_t, 16>, 3>, 2>, 3> bytes{};
  for (std::size_t channel = 0; channel < 3; ++channel)
    for (std::size_t half = 0; half < 2; ++half)
      for (std::size_t value = 0; value < 16; ++value) {
        const std::uint32_t number = kBitsThreeApart[value << (4 * half)] << (2 - channel);
        for (std::size_t byte = 0; byte < 3; ++byte)
          bytes[channel][half][byte][value] = static_cast<std::uint8_t>(number >> (8 * byte));
      }
  return bytes;
}();
}  // namespace chalcedony
#endif

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

#if HWY_TARGET != HWY_SCALAR
// Wider vectors do no better: the processor slows down for them.
using Bytes = hn::CappedTag<std::uint8_t, 32>;
using BytesVector = hn::Vec<Bytes>;

struct ThreeBytes {
  BytesVector low, middle, high;
};

// What one channel gives to the bytes of the numbers. The low half of a byte has bits in the lower
// two of them, the high half in the upper two.
template <std::size_t kChannel>
HWY_INLINE ThreeBytes bytes_of(BytesVector values) {
  const Bytes d;
  const hn::Repartition<std::uint16_t, Bytes> d16;
  const auto half_of_byte = hn::Set(d, 15);
  const auto low = hn::And(values, half_of_byte);
  const auto high =
      hn::And(hn::BitCast(d, hn::ShiftRight<4>(hn::BitCast(d16, values))), half_of_byte);
  const auto look_up = [&](std::size_t half, std::size_t byte, BytesVector value) HWY_ATTR {
    const auto table = hn::LoadDup128(d, kNumberBytes[kChannel][half][byte].data());
    return hn::TableLookupBytes(table, value);
  };
  return {look_up(0, 0, low), hn::Or(look_up(0, 1, low), look_up(1, 1, high)), look_up(1, 2, high)};
}

HWY_INLINE void load(const std::uint8_t* stored, std::uint32_t channels, BytesVector& r,
                     BytesVector& g, BytesVector& b) {
  const Bytes d;
  BytesVector alpha;
  switch (channels) {
    case 1:
      r = g = b = hn::LoadU(d, stored);
      return;
    case 2:
      hn::LoadInterleaved2(d, stored, r, alpha);
      g = b = r;
      return;
    case 3:
      hn::LoadInterleaved3(d, stored, r, g, b);
      return;
    default:
      hn::LoadInterleaved4(d, stored, r, g, b, alpha);
  }
}
#endif

// Whole vectors only; returns how many pixels are done.
std::size_t number_vectors(const std::byte* stored, std::uint32_t channels, std::size_t n,
                           std::uint32_t* numbers) {
  std::size_t i = 0;
#if HWY_TARGET != HWY_SCALAR
  const Bytes d;
  const auto* bytes = reinterpret_cast<const std::uint8_t*>(stored);
  for (; i + hn::Lanes(d) <= n; i += hn::Lanes(d), bytes += hn::Lanes(d) * channels) {
    BytesVector r, g, b;
    load(bytes, channels, r, g, b);
    const ThreeBytes of_r = bytes_of<0>(r), of_g = bytes_of<1>(g), of_b = bytes_of<2>(b);
    // Numbers are stored with their lowest byte first.
    hn::StoreInterleaved4(hn::Or(hn::Or(of_r.low, of_g.low), of_b.low),
                          hn::Or(hn::Or(of_r.middle, of_g.middle), of_b.middle),
                          hn::Or(hn::Or(of_r.high, of_g.high), of_b.high), hn::Zero(d), d,
                          reinterpret_cast<std::uint8_t*>(numbers + i));
  }
#else
  (void)stored, (void)channels, (void)n, (void)numbers;
#endif
  return i;
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {

HWY_EXPORT(number_vectors);

void color_numbers(const std::byte* stored, std::uint32_t channels, std::size_t n,
                   std::uint32_t* numbers) {
  static_assert(std::endian::native == std::endian::little);
  std::size_t i = HWY_DYNAMIC_DISPATCH(number_vectors)(stored, channels, n, numbers);
  for (; i < n; ++i) numbers[i] = color_number(stored + i * channels, channels);
}

}  // namespace chalcedony
#endif
