#include "core/assess/map_comparison.h"

#include <algorithm>
#include <cmath>

namespace chalcedony {
namespace {

constexpr std::uint64_t kFewPixels = 25;

/// Both tails of the binomial distribution of n fair tosses from `fewer` outwards.
double exact_p(std::uint64_t fewer, std::uint64_t n) {
  double ways = 1, tail = 0;
  for (std::uint64_t k = 0; k <= fewer; ++k) {
    tail += ways;
    ways = ways * static_cast<double>(n - k) / static_cast<double>(k + 1);
  }
  return std::min(1.0, 2 * tail / std::pow(2.0, static_cast<double>(n)));
}

}  // namespace

std::optional<TestResult> kappa_difference(const Kappa& first, const Kappa& second) {
  const double variance = first.variance + second.variance;
  if (!(variance > 0)) return std::nullopt;
  const double z = (first.value - second.value) / std::sqrt(variance);
  return TestResult{z, two_sided_tail(z)};
}

std::optional<TestResult> mcnemar(std::uint64_t only_first, std::uint64_t only_second) {
  const std::uint64_t n = only_first + only_second;
  if (n == 0) return std::nullopt;
  const double difference = static_cast<double>(only_first) - static_cast<double>(only_second);
  const double chi_square = difference * difference / static_cast<double>(n);
  const double p = n < kFewPixels ? exact_p(std::min(only_first, only_second), n)
                                  : two_sided_tail(std::sqrt(chi_square));
  return TestResult{chi_square, p};
}

}  // namespace chalcedony
