// Random numbers that are the same on every machine.
#ifndef CHALCEDONY_DEMO_RANDOM_H_
#define CHALCEDONY_DEMO_RANDOM_H_

#include <algorithm>
#include <cmath>
#include <cstdint>

#include "core/pixel/pixel_hash.h"

namespace chalcedony::demo {

class Random {
 public:
  explicit Random(std::uint64_t seed) : state_(seed) {}

  std::uint64_t next() { return mixed_bits(state_++); }
  /// In [0, 1).
  double uniform() { return static_cast<double>(next() >> 11) * 0x1p-53; }
  double uniform(double low, double high) { return low + (high - low) * uniform(); }
  /// Mean 0 and standard deviation 1: the sum of twelve 5-bit uniforms, which needs no function
  /// whose last digit differs between machines.
  double normal() {
    const std::uint64_t bits = next();
    int sum = 0;
    for (int i = 0; i < 12; ++i) sum += static_cast<int>(bits >> (5 * i) & 31);
    return (sum - 186) / 31.98;
  }

 private:
  std::uint64_t state_;
};

/// A code with grain of a standard deviation, both of 255, as it is stored.
inline std::uint8_t grainy(double code, double deviation, Random& random) {
  return static_cast<std::uint8_t>(
      std::clamp(std::lround(code + deviation * random.normal()), 0L, 255L));
}

/// Smooth noise in [0, 1]: random values on a lattice of the given cell size, bilinear between.
inline double lattice_noise(double x, double y, double cell, std::uint64_t seed) {
  const double gx = std::floor(x / cell), gy = std::floor(y / cell);
  const double fx = x / cell - gx, fy = y / cell - gy;
  const auto value = [&](double ix, double iy) {
    const auto key = static_cast<std::uint64_t>(static_cast<std::int64_t>(ix) * 73856093 ^
                                                static_cast<std::int64_t>(iy) * 19349663);
    return static_cast<double>(mixed_bits(key ^ mixed_bits(seed)) >> 40) / 16777215.0;
  };
  const double top = value(gx, gy) * (1 - fx) + value(gx + 1, gy) * fx;
  const double bottom = value(gx, gy + 1) * (1 - fx) + value(gx + 1, gy + 1) * fx;
  return top * (1 - fy) + bottom * fy;
}

}  // namespace chalcedony::demo

#endif  // CHALCEDONY_DEMO_RANDOM_H_
