// Affine maps of three channels, and the matrices colorimetry builds from chromaticities.
#ifndef CHALCEDONY_CORE_COLOR_AFFINE_H_
#define CHALCEDONY_CORE_COLOR_AFFINE_H_

#include <array>
#include <cstddef>

#include "core/planes.h"

namespace chalcedony {

/// y = m x + t, in double: steps are multiplied together before they are rounded to float.
struct Affine {
  std::array<std::array<double, 3>, 3> m{{{1, 0, 0}, {0, 1, 0}, {0, 0, 1}}};
  std::array<double, 3> t{0, 0, 0};
};

/// The map that does `first`, then `second`.
constexpr Affine then(const Affine& first, const Affine& second) {
  Affine both;
  for (std::size_t i = 0; i < 3; ++i) {
    both.t[i] = second.t[i];
    for (std::size_t k = 0; k < 3; ++k) both.t[i] += second.m[i][k] * first.t[k];
    for (std::size_t j = 0; j < 3; ++j) {
      both.m[i][j] = 0;
      for (std::size_t k = 0; k < 3; ++k) both.m[i][j] += second.m[i][k] * first.m[k][j];
    }
  }
  return both;
}

/// Multiplies each channel by its factor.
constexpr Affine scale(double a, double b, double c) {
  return Affine{{{{a, 0, 0}, {0, b, 0}, {0, 0, c}}}, {0, 0, 0}};
}
constexpr Affine scale(double factor) { return scale(factor, factor, factor); }

/// A minor of the matrix, with its sign: a cofactor.
constexpr double cofactor(const Affine& map, std::size_t row, std::size_t column) {
  const auto& m = map.m;
  const std::size_t r1 = (row + 1) % 3, r2 = (row + 2) % 3;
  const std::size_t c1 = (column + 1) % 3, c2 = (column + 2) % 3;
  return m[r1][c1] * m[r2][c2] - m[r1][c2] * m[r2][c1];
}

constexpr double determinant(const Affine& map) {
  return map.m[0][0] * cofactor(map, 0, 0) + map.m[0][1] * cofactor(map, 0, 1) +
         map.m[0][2] * cofactor(map, 0, 2);
}

/// The inverse map, by the adjugate. The matrix must not be singular.
constexpr Affine inverse(const Affine& map) {
  const double divisor = determinant(map);
  Affine out;
  for (std::size_t i = 0; i < 3; ++i)
    for (std::size_t j = 0; j < 3; ++j) out.m[i][j] = cofactor(map, j, i) / divisor;
  for (std::size_t i = 0; i < 3; ++i) {
    out.t[i] = 0;
    for (std::size_t k = 0; k < 3; ++k) out.t[i] -= out.m[i][k] * map.t[k];
  }
  return out;
}

/// A chromaticity, CIE 1931 x and y.
struct Chromaticity {
  double x = 0;
  double y = 0;
};

/// The whites of CSS Color 4: D65 and D50 by their four-digit chromaticities.
inline constexpr Chromaticity kD65{0.3127, 0.3290};
inline constexpr Chromaticity kD50{0.3457, 0.3585};

/// XYZ of a chromaticity with Y = 1.
constexpr std::array<double, 3> xyz_of(Chromaticity c) {
  return {c.x / c.y, 1.0, (1.0 - c.x - c.y) / c.y};
}

constexpr std::array<double, 3> image_of(const Affine& map, const std::array<double, 3>& v) {
  std::array<double, 3> out = map.t;
  for (std::size_t i = 0; i < 3; ++i)
    for (std::size_t k = 0; k < 3; ++k) out[i] += map.m[i][k] * v[k];
  return out;
}

/// What an RGB space is made of, its curves aside.
struct Primaries {
  Chromaticity red, green, blue, white;
};

/// IEC 61966-2-1, which are those of ITU-R BT.709.
inline constexpr Primaries kSrgbPrimaries{{0.64, 0.33}, {0.30, 0.60}, {0.15, 0.06}, kD65};

/// Linear RGB (0-1) to XYZ (Y = 1 for white) of an RGB space given by its primaries and white.
///
/// Source    SMPTE RP 177-1993; with the primaries of CSS Color 4 it gives that text's matrices.
constexpr Affine rgb_to_xyz(const Primaries& p) {
  const auto r = xyz_of(p.red), g = xyz_of(p.green), b = xyz_of(p.blue);
  const Affine primaries{{{{r[0], g[0], b[0]}, {r[1], g[1], b[1]}, {r[2], g[2], b[2]}}}, {}};
  const auto amount = image_of(inverse(primaries), xyz_of(p.white));
  return then(scale(amount[0], amount[1], amount[2]), primaries);
}

/// Chromatic adaptation of XYZ from one white to another.
///
/// Source    Bradford cone responses, as in CSS Color 4 and ICC.1 annex E.
constexpr Affine adapt_white(Chromaticity from, Chromaticity to) {
  const Affine cones{
      {{{0.8951, 0.2664, -0.1614}, {-0.7502, 1.7135, 0.0367}, {0.0389, -0.0685, 1.0296}}}, {}};
  const auto a = image_of(cones, xyz_of(from)), b = image_of(cones, xyz_of(to));
  return then(then(cones, scale(b[0] / a[0], b[1] / a[1], b[2] / a[2])), inverse(cones));
}

/// Applies the map to n pixels.
///
/// Shape     planes padded as in planes.h; `out` may be `in`, but not a permutation of it
/// Accuracy  float arithmetic, each row summed left to right, the same on every CPU
void apply_affine(const Affine& map, const ConstPlanes& in, const Planes& out, std::size_t n);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_COLOR_AFFINE_H_
