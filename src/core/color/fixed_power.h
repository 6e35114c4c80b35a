// x^p for one exponent that is known beforehand, such as those of transfer functions and cube
// roots: a table for the powers of two, and a short polynomial for what lies between.
#ifndef CHALCEDONY_CORE_COLOR_FIXED_POWER_H_
#define CHALCEDONY_CORE_COLOR_FIXED_POWER_H_

#include <array>
#include <cstddef>

namespace chalcedony {

/// A power times a factor. With x = 2^e m and m in [1, 2): x^p = 2^(p e) m^p.
struct FixedPower {
  static constexpr int kLowest = -16;          // the lowest e in the table
  static constexpr std::size_t kEntries = 32;  // so that x from 2^-16 to 2^16 is covered
  static constexpr std::size_t kTerms = 8;

  float exponent = 1;
  float factor = 1;
  alignas(64) std::array<float, kEntries> of_two{};  // factor 2^(p e), beginning with the lowest e
  std::array<float, kTerms> series{};                // of m^p by powers of m - 1.5, lowest first
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

/// The Chebyshev nodes of [-1/2, 1/2]: where a polynomial is made to agree, so that its largest
/// error in between is nearly the least possible.
constexpr std::array<double, FixedPower::kTerms> kNodes = {
    -0.49039264020161522, -0.41573480615127262, -0.27778511650980111, -0.097545161008064135,
    0.097545161008064135, 0.27778511650980111,  0.41573480615127262,  0.49039264020161522};

}  // namespace fixed_power_detail

/// x^p for x > 0, for constants.
constexpr double constant_power(double x, double p) {
  int halvings = 0;
  for (; x >= 2; x /= 2) ++halvings;
  for (; x < 1; x *= 2) --halvings;
  return fixed_power_detail::two_to(p * halvings) *
         fixed_power_detail::exponential(p * fixed_power_detail::logarithm(x));
}

/// The table of `factor` x^p.
///
/// Range     |p| at most 4
/// Accuracy  2e-7 of the result with the arithmetic of float (fixed_power_test.cc)
constexpr FixedPower fixed_power(double p, double factor = 1) {
  namespace detail = fixed_power_detail;
  constexpr std::size_t n = FixedPower::kTerms;
  FixedPower out;
  out.exponent = static_cast<float>(p);
  out.factor = static_cast<float>(factor);
  for (std::size_t i = 0; i < FixedPower::kEntries; ++i)
    out.of_two[i] = static_cast<float>(
        factor * detail::two_to(p * (static_cast<int>(i) + FixedPower::kLowest)));

  // Newton's divided differences at the nodes, then multiplied out into powers.
  std::array<double, n> differences{};
  for (std::size_t i = 0; i < n; ++i)
    differences[i] = detail::exponential(p * detail::logarithm(1.5 + detail::kNodes[i]));
  for (std::size_t order = 1; order < n; ++order)
    for (std::size_t i = n - 1; i >= order; --i)
      differences[i] =
          (differences[i] - differences[i - 1]) / (detail::kNodes[i] - detail::kNodes[i - order]);
  std::array<double, n> series{};
  for (std::size_t i = n; i-- > 0;) {
    for (std::size_t k = n - 1; k > 0; --k)
      series[k] = series[k - 1] - detail::kNodes[i] * series[k];
    series[0] = differences[i] - detail::kNodes[i] * series[0];
  }
  for (std::size_t i = 0; i < n; ++i) out.series[i] = static_cast<float>(series[i]);
  return out;
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_COLOR_FIXED_POWER_H_
