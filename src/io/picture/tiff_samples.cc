#include "io/picture/tiff_samples.h"

#include <algorithm>
#include <bit>
#include <cstring>
#include <utility>

#include "io/picture/packed_samples.h"

namespace chalcedony {
namespace {

template <class Number>
Number number_at(std::span<const std::byte> bytes, std::size_t i) {
  Number number;
  std::memcpy(&number, bytes.data() + i * sizeof(Number), sizeof(Number));
  return number;
}

void put_float(float value, std::byte* row, std::size_t i) {
  std::memcpy(row + i * sizeof(float), &value, sizeof(float));
}

/// A code of 8 or 16 bits.
std::uint32_t code_at(std::span<const std::byte> stored, unsigned bits, std::size_t i) {
  return bits == 8 ? number_at<std::uint8_t>(stored, i) : number_at<std::uint16_t>(stored, i);
}

float float_of_half(std::uint16_t half) {
  constexpr unsigned kMantissaBits = 10, kShift = 23 - kMantissaBits, kBiases = 127 - 15;
  const std::uint32_t sign = std::uint32_t{half & 0x8000u} << 16;
  const std::uint32_t exponent = half >> kMantissaBits & 0x1fu, mantissa = half & 0x3ffu;
  if (exponent == 0) {
    constexpr float kSmallest = 0x1p-24f;  // above 0
    const float size = static_cast<float>(mantissa) * kSmallest;
    return sign ? -size : size;
  }
  // The largest exponent is that of infinities and what is no number.
  const std::uint32_t wide = exponent == 0x1f ? 0xffu : exponent + kBiases;
  return std::bit_cast<float>(sign | wide << 23 | mantissa << kShift);
}

/// L, a or b of a code.
float lab_of(TiffLab lab, unsigned bits, std::uint32_t code, bool is_l) {
  const auto number = static_cast<float>(code);
  const bool narrow = bits == 8;
  if (is_l) {
    const float full = narrow ? 255.0f : lab == TiffLab::kIcc ? 65280.0f : 65535.0f;
    return number * 100.0f / full;
  }
  const float step = narrow ? 1.0f : 256.0f;
  if (lab == TiffLab::kIcc) return number / step - 128.0f;
  const std::uint32_t sign = narrow ? 0x80u : 0x8000u;
  return (code & sign ? number - 2.0f * static_cast<float>(sign) : number) / step;
}

}  // namespace

TiffDelivery deliver_as_stored() {
  return [](std::span<const std::byte> stored, std::byte* row) {
    std::copy(stored.begin(), stored.end(), row);
  };
}

TiffDelivery deliver_white_as_0(unsigned bits, std::size_t channels) {
  return [bytes = bits / 8, channels](std::span<const std::byte> stored, std::byte* row) {
    std::copy(stored.begin(), stored.end(), row);
    for (std::size_t i = 0; i < stored.size(); i += bytes * channels)
      for (std::size_t b = 0; b < bytes; ++b) row[i + b] = ~row[i + b];
  };
}

TiffDelivery deliver_palette(unsigned bits, std::size_t channels, std::vector<std::uint16_t> rgb) {
  return [=, rgb = std::move(rgb)](std::span<const std::byte> stored, std::byte* row) {
    constexpr std::size_t kColor = 3 * sizeof(std::uint16_t);
    const std::size_t pixels = stored.size() / (bits / 8) / channels;
    for (std::size_t x = 0; x < pixels; ++x)
      std::memcpy(row + x * kColor, rgb.data() + 3 * code_at(stored, bits, x * channels), kColor);
  };
}

TiffDelivery deliver_packed(unsigned bits, std::size_t width, bool spread, TiffDelivery then) {
  return [bits, step = spread ? 255u / ((1u << bits) - 1) : 1u, then = std::move(then),
          codes = std::vector<std::byte>(width)](std::span<const std::byte> stored,
                                                 std::byte* row) mutable {
    unpack_samples(stored.data(), bits, codes.size(), step, codes.data());
    then(codes, row);
  };
}

TiffDelivery deliver_floats(unsigned bits) {
  if (bits == 16)
    return [](std::span<const std::byte> stored, std::byte* row) {
      const std::size_t samples = stored.size() / sizeof(std::uint16_t);
      for (std::size_t i = 0; i < samples; ++i)
        put_float(float_of_half(number_at<std::uint16_t>(stored, i)), row, i);
    };
  return [](std::span<const std::byte> stored, std::byte* row) {
    const std::size_t samples = stored.size() / sizeof(double);
    for (std::size_t i = 0; i < samples; ++i)
      put_float(static_cast<float>(number_at<double>(stored, i)), row, i);
  };
}

TiffDelivery deliver_lab(TiffLab lab, unsigned bits, std::size_t channels) {
  return [=](std::span<const std::byte> stored, std::byte* row) {
    const std::size_t samples = stored.size() / (bits / 8);
    const float full = bits == 8 ? 255.0f : 65535.0f;
    for (std::size_t i = 0; i < samples; ++i) {
      const std::uint32_t code = code_at(stored, bits, i);
      const std::size_t channel = i % channels;
      put_float(
          channel < 3 ? lab_of(lab, bits, code, channel == 0) : static_cast<float>(code) / full,
          row, i);
    }
  };
}

}  // namespace chalcedony
