// A color space as a file describes it: a curve for each channel, then a matrix.
#ifndef CHALCEDONY_CORE_COLOR_RGB_PROFILE_H_
#define CHALCEDONY_CORE_COLOR_RGB_PROFILE_H_

#include <array>
#include <string>
#include <vector>

#include "core/color/affine.h"
#include "core/color/space.h"

namespace chalcedony {

/// From encoded to linear samples, both 0 to 1: a table, or Y = (a X + b)^g + e from d on and
/// Y = c X + f below.
///
/// Source    ICC.1:2010, 10.5 (curveType) and 10.15 (parametricCurveType)
struct ProfileCurve {
  std::vector<double> table;  // values at equal steps; empty: the parameters
  double g = 1, a = 1, b = 0, c = 0, d = 0, e = 0, f = 0;

  double at(double x) const;
};

struct RgbProfile {
  std::string name;
  bool gray = false;                   // one curve, to luminance
  std::array<ProfileCurve, 3> curves;  // of r, g, b
  Affine to_xyz_d50;                   // linear 0-1 to XYZ with D50 as white, Y = 1

  /// XYZ (D50) of encoded samples, 0 to 1.
  std::array<double, 3> xyz(const std::array<double, 3>& encoded) const;
};

/// A profile of primaries with their white, adapted to D50 by Bradford, and a power for all
/// channels.
RgbProfile profile_of_primaries(const Primaries& primaries, double power);

/// Whether different samples are different colors: not of primaries on one line, or of curves that
/// have no value.
bool tells_colors_apart(const RgbProfile& profile);

/// The RGB space whose colors are those of the profile, within 0.6 of 255 at all colors tried; null
/// when there is none.
const Space* space_like(const RgbProfile& profile);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_COLOR_RGB_PROFILE_H_
