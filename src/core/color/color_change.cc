#include "core/color/color_change.h"

#include <algorithm>
#include <cmath>

#include "core/color/ciede2000.h"

namespace chalcedony {

double ColorChange::largest() const {
  return std::max({std::abs(lightness), std::abs(a), std::abs(b)});
}

ColorChange color_change(const std::array<double, 3>& earlier, const std::array<double, 3>& later) {
  return {ciede2000(earlier, later), later[0] - earlier[0], later[1] - earlier[1],
          later[2] - earlier[2],
          std::hypot(later[1], later[2]) - std::hypot(earlier[1], earlier[2])};
}

}  // namespace chalcedony
