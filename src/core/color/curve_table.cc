#include "core/color/curve_table.h"

#include <algorithm>
#include <cmath>

namespace chalcedony {

double table_at(const std::vector<double>& table, double share) {
  const double place = std::clamp(share, 0.0, 1.0) * static_cast<double>(table.size() - 1);
  const auto step = std::min(static_cast<std::size_t>(place), table.size() - 2);
  return table[step] + (table[step + 1] - table[step]) * (place - static_cast<double>(step));
}

void CurveTable::apply(const float* in, float* out, std::size_t n) const {
  constexpr float kLast = kCodes - 1;
  for (std::size_t i = 0; i < n; ++i) {
    const float place = (in[i] - low_) * per_step_;
    const float inside = place > 0 ? std::min(place, kLast) : 0.0f;
    const auto step = static_cast<std::size_t>(inside);
    const float value =
        values_[step] + (values_[step + 1] - values_[step]) * (inside - static_cast<float>(step));
    out[i] = std::isnan(in[i]) ? in[i] : value;
  }
}

}  // namespace chalcedony
