#include "core/color/rgb_profile.h"

#include <algorithm>
#include <cmath>

#include "core/color/conversion.h"
#include "core/color/curve_table.h"

namespace chalcedony {
namespace {

constexpr double kAlike = 0.6;  // of 255: the half code of rounding, and what tables round

using Triple = std::array<double, 3>;

/// Corners, middles and grays of the cube, 0 to 1. Dark colors differ less than their codes.
std::vector<Triple> tried_colors() {
  std::vector<Triple> colors;
  for (const double r : {0.1, 0.5, 1.0})
    for (const double g : {0.1, 0.5, 1.0})
      for (const double b : {0.1, 0.5, 1.0}) colors.push_back({r, g, b});
  for (int gray = 1; gray <= 16; ++gray) colors.push_back({gray / 16.0, gray / 16.0, gray / 16.0});
  return colors;
}

bool are_alike(const RgbProfile& profile, const Space& space) {
  for (const Triple& color : tried_colors()) {
    if (profile.gray && color[0] != color[1]) continue;
    const Triple again = convert_color(spaces::kXyzD50, space, profile.xyz(color));
    for (std::size_t c = 0; c < 3; ++c)
      if (!(std::abs(again[c] - 255 * color[c]) <= kAlike)) return false;
  }
  return true;
}

}  // namespace

double ProfileCurve::at(double x) const {
  if (!table.empty()) return table_at(table, x);
  if (x < d) return c * x + f;
  return std::pow(std::max(0.0, a * x + b), g) + e;
}

std::array<double, 3> RgbProfile::xyz(const std::array<double, 3>& encoded) const {
  if (gray) {
    const Triple white = xyz_of(kD50);
    const double light = curves[0].at(encoded[0]);
    return {white[0] * light, white[1] * light, white[2] * light};
  }
  return image_of(to_xyz_d50,
                  {curves[0].at(encoded[0]), curves[1].at(encoded[1]), curves[2].at(encoded[2])});
}

RgbProfile profile_of_primaries(const Primaries& primaries, double power) {
  RgbProfile profile;
  for (ProfileCurve& curve : profile.curves) curve.g = power;
  profile.to_xyz_d50 = then(rgb_to_xyz(primaries), adapt_white(primaries.white, kD50));
  return profile;
}

bool tells_colors_apart(const RgbProfile& profile) {
  constexpr double kLeastVolume = 1e-6;  // of the colors; that of sRGB is 0.16
  // No number is not above it either.
  if (!profile.gray && !(std::abs(determinant(profile.to_xyz_d50)) > kLeastVolume)) return false;
  const auto colors = tried_colors();
  return std::all_of(colors.begin(), colors.end(), [&](const Triple& color) {
    const Triple xyz = profile.xyz(color);
    return std::isfinite(xyz[0]) && std::isfinite(xyz[1]) && std::isfinite(xyz[2]);
  });
}

const Space* space_like(const RgbProfile& profile) {
  for (const Space* space : {&spaces::kSrgb, &spaces::kDisplayP3, &spaces::kA98Rgb,
                             &spaces::kProphotoRgb, &spaces::kRec2020, &spaces::kSrgbLinear}) {
    if (profile.gray && space != &spaces::kSrgb) continue;
    if (are_alike(profile, *space)) return space;
  }
  return nullptr;
}

}  // namespace chalcedony
