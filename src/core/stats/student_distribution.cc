#include "core/stats/student_distribution.h"

#include <boost/math/special_functions/beta.hpp>
#include <cmath>

namespace chalcedony {

double student_t(double level, double degrees) {
  // The share beyond +-t is the incomplete beta of degrees / (degrees + t^2), halves as its shape.
  const double x = boost::math::ibeta_inv(degrees / 2, 0.5, 1 - level);
  return std::sqrt(degrees * (1 - x) / x);
}

}  // namespace chalcedony
