// A number for each 8-bit color: the bits of r, g and b in turn (Morton, A computer oriented
// geodetic data base, IBM 1966). Similar colors, as neighbors in a picture have, have numbers close
// to each other, so that tables by number are read from few lines of the cache.
#ifndef CHALCEDONY_CORE_PIXEL_COLOR_NUMBER_H_
#define CHALCEDONY_CORE_PIXEL_COLOR_NUMBER_H_

#include <array>
#include <cstddef>
#include <cstdint>

namespace chalcedony {

/// Numbers are below this.
inline constexpr std::size_t kColorNumbers = std::size_t{1} << 24;

/// The bits of a byte, three apart.
inline constexpr std::array<std::uint32_t, 256> kBitsThreeApart = [] {
  std::array<std::uint32_t, 256> apart{};
  for (std::uint32_t v = 0; v < 256; ++v)
    for (std::uint32_t bit = 0; bit < 8; ++bit) apart[v] |= (v >> bit & 1) << (3 * bit);
  return apart;
}();

/// The number of one stored pixel of `channels` samples: r g b first, or a gray, which is a color
/// with three equal channels, when they are one or two.
inline std::uint32_t color_number(const std::byte* stored, std::uint32_t channels = 3) {
  const auto bits = [&](std::size_t c) {
    return kBitsThreeApart[std::to_integer<std::size_t>(stored[c])];
  };
  return channels < 3 ? bits(0) * 7 : bits(0) << 2 | bits(1) << 1 | bits(2);
}

/// The numbers of n stored pixels of 1 to 4 samples each.
void color_numbers(const std::byte* stored, std::uint32_t channels, std::size_t n,
                   std::uint32_t* numbers);

/// The four bits of r, g and b that twelve bits of a number hold.
inline constexpr std::array<std::array<std::uint8_t, 3>, 4096> kHalvesOfNumber = [] {
  std::array<std::array<std::uint8_t, 3>, 4096> halves{};
  for (std::size_t bits = 0; bits < halves.size(); ++bits)
    for (std::size_t channel = 0; channel < 3; ++channel) {
      const std::size_t own = bits >> (2 - channel);
      halves[bits][channel] =
          static_cast<std::uint8_t>((own & 1) | (own >> 2 & 2) | (own >> 4 & 4) | (own >> 6 & 8));
    }
  return halves;
}();

/// r, g and b of a number.
inline std::array<std::byte, 3> color_of_number(std::uint32_t number) {
  const auto &high = kHalvesOfNumber[number >> 12], &low = kHalvesOfNumber[number & 4095];
  std::array<std::byte, 3> rgb;
  for (std::size_t c = 0; c < 3; ++c) rgb[c] = static_cast<std::byte>(high[c] << 4 | low[c]);
  return rgb;
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_COLOR_NUMBER_H_
