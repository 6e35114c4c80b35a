#include "core/assess/between_maps.h"

#include <algorithm>
#include <cmath>

#include "core/stats/student_distribution.h"

namespace chalcedony {

std::optional<BetweenMaps> between_maps(const std::vector<MapScore>& maps, double level) {
  BetweenMaps out;
  double right = 0, assessed = 0;
  for (const MapScore& map : maps) {
    if (map.assessed == 0) continue;
    ++out.maps;
    right += static_cast<double>(map.right);
    assessed += static_cast<double>(map.assessed);
  }
  if (out.maps < 2) return std::nullopt;
  out.overall = right / assessed;
  double squares = 0;
  for (const MapScore& map : maps) {
    const double off =
        static_cast<double>(map.right) - out.overall * static_cast<double>(map.assessed);
    squares += off * off;
  }
  const double m = static_cast<double>(out.maps);
  out.standard_error = std::sqrt(m / (m - 1) * squares) / assessed;
  const double half = student_t(level, m - 1) * out.standard_error;
  out.interval = {std::max(0.0, out.overall - half), std::min(1.0, out.overall + half)};
  return out;
}

}  // namespace chalcedony
