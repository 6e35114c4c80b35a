// x^p for one exponent that is known beforehand, such as those of transfer functions and cube
// roots: tables for the power of two and for sixteen pieces between it and the next, and a short
// series for what lies within a piece.
#ifndef CHALCEDONY_CORE_COLOR_FIXED_POWER_H_
#define CHALCEDONY_CORE_COLOR_FIXED_POWER_H_

#include <array>
#include <cstddef>
#include <cstdint>

namespace chalcedony {

/// A power. With x = 2^e c (1 + r), where c is the middle of a sixteenth of [1, 2), to within the
/// rounding of 1 / c: x^p = 2^(p e) c^p (1 + r)^p.
struct FixedPower {
  static constexpr std::size_t kSpan = 32, kPieces = 16;
  /// The lowest e: x from 2^-16 to 2^16 is covered.
  static constexpr int kLowest = -16;
  /// IEEE 754 binary32: the exponent, 127 more than it says, stands above 23 bits.
  static constexpr int kExponentBias = 127, kExponentAt = 23;
  /// The piece stands in the four bits below it.
  static constexpr int kPieceAt = kExponentAt - 4;
  /// The bits of the lowest x that is covered, and how much greater those of the last are.
  static constexpr std::uint32_t kLowestBits = std::uint32_t{kExponentBias + kLowest}
                                               << kExponentAt;
  static constexpr std::uint32_t kLastBits = (std::uint32_t{kSpan} << kExponentAt) - 1;

  float exponent = 1;
  /// 2^(p e), where the lowest bits of the biased exponent of x say.
  alignas(64) std::array<float, kSpan> of_two{};
  alignas(64) std::array<float, kPieces> of_middle{};   // c^p
  alignas(64) std::array<float, kPieces> one_middle{};  // 1 / c
  /// (1 + r)^p = 1 + r (series[0] + r (series[1] + r series[2])), the binomial series. As r is
  /// within 1/33, the next term is below 4e-8.
  std::array<float, 3> series{};

  static constexpr std::size_t place_of(int e) {
    return static_cast<std::size_t>(e + kExponentBias) % kSpan;
  }
  static constexpr double middle(std::size_t piece) {
    return 1 + (static_cast<double>(piece) + 0.5) / kPieces;
  }
};

namespace fixed_power_detail {

/// The natural logarithm of m in [1, 2], by 2 artanh((m - 1) / (m + 1)).
constexpr double logarithm(double m) {
  const double t = (m - 1) / (m + 1);
  double sum = 0, power = t;
  for (int k = 1; k < 60; k += 2, power *= t * t) sum += power / k;
  return 2 * sum;
}

constexpr double exponential(double x) {
  double sum = 1, term = 1;
  for (int k = 1; k < 40; ++k) {
    term *= x / k;
    sum += term;
  }
  return sum;
}

constexpr double two_to(double y) {
  auto whole = static_cast<int>(y);
  double result = exponential((y - whole) * logarithm(2));
  for (; whole > 0; --whole) result *= 2;
  for (; whole < 0; ++whole) result /= 2;
  return result;
}

}  // namespace fixed_power_detail

/// x^p for x > 0, for constants.
constexpr double constant_power(double x, double p) {
  int halvings = 0;
  for (; x >= 2; x /= 2) ++halvings;
  for (; x < 1; x *= 2) --halvings;
  return fixed_power_detail::two_to(p * halvings) *
         fixed_power_detail::exponential(p * fixed_power_detail::logarithm(x));
}

/// The tables of x^p.
///
/// Range     |p| at most 4
/// Accuracy  2e-7 of the result with the arithmetic of float (fixed_power_test.cc)
constexpr FixedPower fixed_power(double p) {
  namespace detail = fixed_power_detail;
  FixedPower out;
  out.exponent = static_cast<float>(p);
  for (int e = out.kLowest; e < out.kLowest + static_cast<int>(out.kSpan); ++e)
    out.of_two[out.place_of(e)] = static_cast<float>(detail::two_to(p * e));
  for (std::size_t i = 0; i < out.kPieces; ++i) {
    out.one_middle[i] = static_cast<float>(1 / out.middle(i));
    out.of_middle[i] =
        static_cast<float>(constant_power(1 / static_cast<double>(out.one_middle[i]), p));
  }
  out.series = {static_cast<float>(p), static_cast<float>(p * (p - 1) / 2),
                static_cast<float>(p * (p - 1) * (p - 2) / 6)};
  return out;
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_COLOR_FIXED_POWER_H_
