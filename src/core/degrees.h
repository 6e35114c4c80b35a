// Angles in degrees.
#ifndef CHALCEDONY_CORE_DEGREES_H_
#define CHALCEDONY_CORE_DEGREES_H_

#include <cmath>

namespace chalcedony {

/// The same direction, at least 0 and below 360.
inline double on_circle(double degrees) {
  const double rest = std::fmod(degrees, 360);
  return rest < 0 ? rest + 360 : rest;
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_DEGREES_H_
