// Angles in degrees.
#ifndef CHALCEDONY_CORE_DEGREES_H_
#define CHALCEDONY_CORE_DEGREES_H_

#include <cmath>
#include <numbers>

namespace chalcedony {

inline double radians(double degrees) { return degrees * std::numbers::pi / 180; }

/// The same direction, at least 0 and below 360.
inline double on_circle(double degrees) {
  const double rest = std::fmod(degrees, 360);
  return rest < 0 ? rest + 360 : rest;
}

/// The direction of (cosine, sine), likewise.
inline double direction(double sine, double cosine) {
  return on_circle(std::atan2(sine, cosine) * 180 / std::numbers::pi);
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_DEGREES_H_
