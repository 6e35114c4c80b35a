#include "core/stats/normal_distribution.h"

#include <boost/math/special_functions/erf.hpp>
#include <cmath>
#include <numbers>

namespace chalcedony {

double normal_z(double level) { return std::numbers::sqrt2 * boost::math::erf_inv(level); }

double two_sided_tail(double z) { return std::erfc(std::abs(z) / std::numbers::sqrt2); }

}  // namespace chalcedony
