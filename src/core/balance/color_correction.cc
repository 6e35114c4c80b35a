#include "core/balance/color_correction.h"

#include <tbb/parallel_for.h>

#include <Eigen/Cholesky>
#include <Eigen/Core>
#include <algorithm>
#include <cmath>
#include <limits>
#include <string>

#include "core/color/cie_lightness.h"
#include "core/color/ciede2000.h"
#include "core/error.h"

namespace chalcedony {
namespace {

using Matrix3 = Eigen::Matrix3d;
using Vector3 = Eigen::Vector3d;

constexpr Eigen::Index kOfMatrix = 9, kMostParameters = kOfMatrix + CameraTone::kTerms;
/// The matrix, row by row, then the bend of the tone curve where that is looked for.
using Parameters = Eigen::Matrix<double, Eigen::Dynamic, 1, 0, kMostParameters, 1>;
using ParameterProducts =
    Eigen::Matrix<double, Eigen::Dynamic, Eigen::Dynamic, 0, kMostParameters, kMostParameters>;
using LabByParameters = Eigen::Matrix<double, 3, Eigen::Dynamic, 0, 3, kMostParameters>;

constexpr double kDarkest = 0.01;  // of Y: what is darker weighs no more
constexpr int kMostSteps = 100;
constexpr double kEnough = 1e-12;      // of the sum of squares that a step saves
constexpr double kOnePlane = 1e-3;     // least over greatest spread of the patches' colors
constexpr double kMostDamping = 1e12;  // nothing near is better

Vector3 vector_of(const std::array<double, 3>& v) { return {v[0], v[1], v[2]}; }

/// The function of CIE 15:2018, 8.2.1, that Lab takes of X / Xn, and how it rises.
double lab_root(double t) {
  return t > kCieEpsilon<double> ? std::cbrt(t) : (kCieKappa<double> * t + 16) / 116;
}
double lab_root_rise(double t) {
  if (t <= kCieEpsilon<double>) return kCieKappa<double> / 116;
  const double root = std::cbrt(t);
  return 1 / (3 * root * root);
}

const Vector3& white() {
  static const Vector3 kWhite = vector_of(xyz_of(kD50));
  return kWhite;
}

/// Lab of the three roots.
const Matrix3& lab_of_roots() {
  static const Matrix3 kLabOfRoots{{0, 116, 0}, {500, -500, 0}, {0, 200, -200}};
  return kLabOfRoots;
}

Vector3 lab_of(const Vector3& xyz) {
  const Vector3 roots = xyz.cwiseQuotient(white()).unaryExpr(&lab_root);
  return lab_of_roots() * roots - Vector3(16, 0, 0);
}

/// r g b of srgb-linear, 0 to 1, to XYZ with white D50.
constexpr Affine kXyzOfRgb = then(rgb_to_xyz(kSrgbPrimaries), adapt_white(kD65, kD50));
constexpr Affine kRgbOfXyz = inverse(kXyzOfRgb);

Matrix3 matrix_of(const Affine& map) {
  const auto& m = map.m;
  return Matrix3{
      {m[0][0], m[0][1], m[0][2]}, {m[1][0], m[1][1], m[1][2]}, {m[2][0], m[2][1], m[2][2]}};
}

Affine affine_of(const Matrix3& matrix) {
  Affine map;
  for (std::size_t i = 0; i < 3; ++i)
    for (std::size_t j = 0; j < 3; ++j)
      map.m[i][j] = matrix(static_cast<Eigen::Index>(i), static_cast<Eigen::Index>(j));
  return map;
}

std::array<double, 3> without_tone(const CameraTone& tone, const std::array<double, 3>& xyz) {
  if (tone.is_straight()) return xyz;
  auto rgb = image_of(kRgbOfXyz, xyz);
  for (double& light : rgb) light = tone.at(light);
  return image_of(kXyzOfRgb, rgb);
}

double squares(const std::vector<KnownPatch>& patches, const ColorCorrection& correction) {
  double sum = 0;
  for (const KnownPatch& patch : patches)
    sum += (lab_of(vector_of(correction.of(patch.found))) - lab_of(vector_of(patch.known)))
               .squaredNorm();
  return sum;
}

/// The normal equations of linear least squares: the found light of patches by itself and by what
/// is known, weighed by how dark a patch is to the eye.
struct LightProducts {
  Matrix3 found = Matrix3::Zero(), found_by_known = Matrix3::Zero();

  explicit LightProducts(const std::vector<KnownPatch>& patches) {
    for (const KnownPatch& patch : patches) {
      const double weight = 1 / std::max(patch.known[1], kDarkest);
      const Vector3 light = weight * vector_of(patch.found);
      found += light * light.transpose();
      found_by_known += light * (weight * vector_of(patch.known)).transpose();
    }
  }
};

/// Whether the patches lie in one plane with black: a pivot is the square of what is left of their
/// colors in a direction that the ones before do not have.
bool leave_open(const Eigen::LDLT<Matrix3>& found) {
  const Vector3 spread = found.vectorD();
  return !(spread.minCoeff() > kOnePlane * kOnePlane * spread.maxCoeff());
}

bool leave_open(const std::vector<KnownPatch>& patches) {
  return leave_open(LightProducts(patches).found.ldlt());
}

/// Linear least squares.
Matrix3 first_guess(const std::vector<KnownPatch>& patches) {
  const LightProducts products(patches);
  const Eigen::LDLT<Matrix3> found(products.found);
  if (leave_open(found))
    throw InputError("the colors of the patches lie in one plane, as grays alone do",
                     "add patches of other hues; for grays there is balance --neutral");
  return found.solve(products.found_by_known).transpose();
}

/// How the light of a patch without its tone, in XYZ, changes with the bend of the curve.
Matrix3 light_by_bend(const CameraTone& tone, const std::array<double, 3>& xyz) {
  const auto rgb = image_of(kRgbOfXyz, xyz);
  Matrix3 rgb_by_bend;
  for (std::size_t c = 0; c < 3; ++c)
    rgb_by_bend.row(static_cast<Eigen::Index>(c)) =
        vector_of(tone.slopes_by_bend(rgb[c])).transpose();
  return matrix_of(kXyzOfRgb) * rgb_by_bend;
}

/// How Lab of a corrected patch changes with the parameters; a row for each of l, a and b.
LabByParameters lab_by_parameters(const KnownPatch& patch, const ColorCorrection& correction,
                                  Eigen::Index parameters) {
  const Vector3 light = vector_of(without_tone(correction.tone, patch.found));
  const Vector3 mapped = matrix_of(correction.matrix) * light;
  const Vector3 rise = mapped.cwiseQuotient(white()).unaryExpr(&lab_root_rise);
  const Matrix3 lab_by_xyz = lab_of_roots() * rise.cwiseQuotient(white()).asDiagonal();
  LabByParameters out(3, parameters);
  for (Eigen::Index row = 0; row < 3; ++row)
    out.block<3, 3>(0, 3 * row) = lab_by_xyz.col(row) * light.transpose();
  if (parameters > kOfMatrix)
    out.rightCols(parameters - kOfMatrix) =
        lab_by_xyz * matrix_of(correction.matrix) * light_by_bend(correction.tone, patch.found);
  return out;
}

ColorCorrection less(const ColorCorrection& correction, const Parameters& step) {
  ColorCorrection out = correction;
  for (std::size_t i = 0; i < 3; ++i)
    for (std::size_t j = 0; j < 3; ++j)
      out.matrix.m[i][j] -= step[static_cast<Eigen::Index>(3 * i + j)];
  for (Eigen::Index p = kOfMatrix; p < step.size(); ++p)
    out.tone.bend[static_cast<std::size_t>(p - kOfMatrix)] -= step[p];
  return out;
}

/// Steps by the normal equations of the differences in Lab, linear nearby; damped more where they
/// would not help.
ColorCorrection refined(const std::vector<KnownPatch>& patches, ColorCorrection correction,
                        CorrectionKind kind) {
  const Eigen::Index parameters =
      kind == CorrectionKind::kMatrix ? kOfMatrix : kOfMatrix + Eigen::Index{CameraTone::kTerms};
  double sum = squares(patches, correction), damping = 1e-3;
  for (int step = 0; step < kMostSteps && damping < kMostDamping; ++step) {
    ParameterProducts products = ParameterProducts::Zero(parameters, parameters);
    Parameters gradient = Parameters::Zero(parameters);
    for (const KnownPatch& patch : patches) {
      const LabByParameters by = lab_by_parameters(patch, correction, parameters);
      products += by.transpose() * by;
      gradient += by.transpose() *
                  (lab_of(vector_of(correction.of(patch.found))) - lab_of(vector_of(patch.known)));
    }
    products.diagonal() *= 1 + damping;
    const ColorCorrection better = less(correction, products.ldlt().solve(gradient));
    const double left = squares(patches, better);
    if (!(left < sum) || !better.tone.rises()) {
      damping *= 10;
      continue;
    }
    const bool enough = sum - left < kEnough * sum;
    correction = better;
    sum = left;
    damping /= 10;
    if (enough) break;
  }
  return correction;
}

double difference_from_known(const KnownPatch& patch, const ColorCorrection& correction) {
  const auto lab = [](const std::array<double, 3>& xyz) {
    const Vector3 v = lab_of(vector_of(xyz));
    return std::array<double, 3>{v[0], v[1], v[2]};
  };
  return ciede2000(lab(correction.of(patch.found)), lab(patch.known));
}

}  // namespace

std::array<double, 3> ColorCorrection::of(const std::array<double, 3>& xyz) const {
  return image_of(matrix, without_tone(tone, xyz));
}

ColorCorrection fitted_correction(const std::vector<KnownPatch>& patches, CorrectionKind kind) {
  if (patches.size() < fewest_patches(kind))
    throw InputError(
        "has " + std::to_string(patches.size()) + " patches to correct by, and it takes " +
            std::to_string(fewest_patches(kind)),
        kind == CorrectionKind::kMatrix ? "add patches of known color"
                                        : "add patches of known color, or leave --tone out");
  const ColorCorrection linear{{}, affine_of(first_guess(patches))};
  const ColorCorrection by_matrix = refined(patches, linear, CorrectionKind::kMatrix);
  return kind == CorrectionKind::kMatrix ? by_matrix : refined(patches, by_matrix, kind);
}

std::vector<double> differences_from_known(const std::vector<KnownPatch>& patches,
                                           const ColorCorrection& correction) {
  std::vector<double> differences;
  for (const KnownPatch& patch : patches)
    differences.push_back(difference_from_known(patch, correction));
  return differences;
}

std::vector<double> left_out_differences(const std::vector<KnownPatch>& patches,
                                         const ColorCorrection& correction, CorrectionKind kind) {
  std::vector<double> differences(patches.size());
  tbb::parallel_for(std::size_t{0}, patches.size(), [&](std::size_t i) {
    std::vector<KnownPatch> others = patches;
    others.erase(others.begin() + static_cast<std::ptrdiff_t>(i));
    const bool open = leave_open(others);
    differences[i] = open ? std::numeric_limits<double>::quiet_NaN()
                          : difference_from_known(patches[i], refined(others, correction, kind));
  });
  return differences;
}

}  // namespace chalcedony
