#include "core/stats/proportion.h"

#include <algorithm>
#include <cmath>

namespace chalcedony {

std::optional<Interval> wilson_interval(std::uint64_t hits, std::uint64_t n, double level) {
  if (n == 0) return std::nullopt;
  const double size = static_cast<double>(n), p = static_cast<double>(hits) / size;
  const double z = normal_z(level), z2 = z * z;
  const double center = (p + z2 / (2 * size)) / (1 + z2 / size);
  const double half = z / (1 + z2 / size) * std::sqrt(p * (1 - p) / size + z2 / (4 * size * size));
  // At no hits and at all hits the interval ends there exactly.
  return Interval{hits == 0 ? 0.0 : std::max(0.0, center - half),
                  hits == n ? 1.0 : std::min(1.0, center + half)};
}

std::uint64_t sample_size_for(double expected, double half_width, double level) {
  const double z = normal_z(level);
  const double n = z * z * expected * (1 - expected) / (half_width * half_width);
  return std::max<std::uint64_t>(1, static_cast<std::uint64_t>(std::ceil(n - 1e-9)));
}

}  // namespace chalcedony
