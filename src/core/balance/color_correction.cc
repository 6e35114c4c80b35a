#include "core/balance/color_correction.h"

#include <tbb/parallel_for.h>

#include <Eigen/Cholesky>
#include <Eigen/Core>
#include <Eigen/QR>
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
using Parameters = Eigen::Matrix<double, 9, 1>;  // the matrix, row by row

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

Matrix3 matrix_of(const Parameters& p) {
  return Eigen::Map<const Eigen::Matrix<double, 3, 3, Eigen::RowMajor>>(p.data());
}

double squares(const std::vector<KnownPatch>& patches, const Matrix3& matrix) {
  double sum = 0;
  for (const KnownPatch& patch : patches)
    sum += (lab_of(matrix * vector_of(patch.found)) - lab_of(vector_of(patch.known))).squaredNorm();
  return sum;
}

using Factors = Eigen::ColPivHouseholderQR<Eigen::MatrixXd>;

/// A row for each patch, weighed by its darkness as the eye sees it.
Eigen::MatrixXd weighted(const std::vector<KnownPatch>& patches,
                         std::array<double, 3> KnownPatch::*light) {
  Eigen::MatrixXd rows(static_cast<Eigen::Index>(patches.size()), 3);
  for (Eigen::Index i = 0; i < rows.rows(); ++i) {
    const KnownPatch& patch = patches[static_cast<std::size_t>(i)];
    rows.row(i) = vector_of(patch.*light).transpose() / std::max(patch.known[1], kDarkest);
  }
  return rows;
}

/// Whether the patches lie in one plane with black.
bool leave_open(const Factors& found) {
  const Eigen::VectorXd spread = found.matrixR().diagonal().cwiseAbs();
  return spread.size() < 3 || !(spread.minCoeff() > kOnePlane * spread.maxCoeff());
}

/// Linear least squares.
Matrix3 first_guess(const std::vector<KnownPatch>& patches) {
  const Factors found(weighted(patches, &KnownPatch::found));
  if (leave_open(found))
    throw InputError("the colors of the patches lie in one plane, as grays alone do",
                     "add patches of other hues; for grays there is balance --neutral");
  return found.solve(weighted(patches, &KnownPatch::known)).transpose();
}

/// The normal equations of the differences in Lab, linear in the matrix nearby.
void add_equations(const std::vector<KnownPatch>& patches, const Matrix3& matrix,
                   Eigen::Matrix<double, 9, 9>& products, Parameters& gradient) {
  for (const KnownPatch& patch : patches) {
    const Vector3 found = vector_of(patch.found);
    const Vector3 mapped = matrix * found;
    const Vector3 rise = mapped.cwiseQuotient(white()).unaryExpr(&lab_root_rise);
    const Matrix3 lab_by_xyz = lab_of_roots() * rise.cwiseQuotient(white()).asDiagonal();
    Eigen::Matrix<double, 3, 9> by_parameters;
    for (Eigen::Index row = 0; row < 3; ++row)
      by_parameters.block<3, 3>(0, 3 * row) = lab_by_xyz.col(row) * found.transpose();
    const Vector3 off = lab_of(mapped) - lab_of(vector_of(patch.known));
    products += by_parameters.transpose() * by_parameters;
    gradient += by_parameters.transpose() * off;
  }
}

/// Steps that are damped more where they would not help.
Matrix3 refined(const std::vector<KnownPatch>& patches, Matrix3 matrix) {
  double sum = squares(patches, matrix), damping = 1e-3;
  for (int step = 0; step < kMostSteps && damping < kMostDamping; ++step) {
    Eigen::Matrix<double, 9, 9> products = Eigen::Matrix<double, 9, 9>::Zero();
    Parameters gradient = Parameters::Zero();
    add_equations(patches, matrix, products, gradient);
    products.diagonal() *= 1 + damping;
    const Matrix3 better = matrix - matrix_of(products.ldlt().solve(gradient));
    const double left = squares(patches, better);
    if (!(left < sum)) {
      damping *= 10;
      continue;
    }
    const bool enough = sum - left < kEnough * sum;
    matrix = better;
    sum = left;
    damping /= 10;
    if (enough) break;
  }
  return matrix;
}

Affine affine_of(const Matrix3& matrix) {
  Affine map;
  for (std::size_t i = 0; i < 3; ++i)
    for (std::size_t j = 0; j < 3; ++j)
      map.m[i][j] = matrix(static_cast<Eigen::Index>(i), static_cast<Eigen::Index>(j));
  return map;
}

double difference_from_known(const KnownPatch& patch, const Affine& correction) {
  const auto lab = [](const std::array<double, 3>& xyz) {
    const Vector3 v = lab_of(vector_of(xyz));
    return std::array<double, 3>{v[0], v[1], v[2]};
  };
  return ciede2000(lab(image_of(correction, patch.found)), lab(patch.known));
}

}  // namespace

Affine fitted_correction(const std::vector<KnownPatch>& patches) {
  if (patches.size() < kFewestPatches)
    throw InputError("has " + std::to_string(patches.size()) +
                         " patches to correct by, and it takes " + std::to_string(kFewestPatches),
                     "add patches of known color");
  return affine_of(refined(patches, first_guess(patches)));
}

std::vector<double> differences_from_known(const std::vector<KnownPatch>& patches,
                                           const Affine& correction) {
  std::vector<double> differences;
  for (const KnownPatch& patch : patches)
    differences.push_back(difference_from_known(patch, correction));
  return differences;
}

std::vector<double> left_out_differences(const std::vector<KnownPatch>& patches,
                                         const Affine& correction) {
  const auto& m = correction.m;
  const Matrix3 of_all{
      {m[0][0], m[0][1], m[0][2]}, {m[1][0], m[1][1], m[1][2]}, {m[2][0], m[2][1], m[2][2]}};
  std::vector<double> differences(patches.size());
  tbb::parallel_for(std::size_t{0}, patches.size(), [&](std::size_t i) {
    std::vector<KnownPatch> others = patches;
    others.erase(others.begin() + static_cast<std::ptrdiff_t>(i));
    const bool open = leave_open(Factors(weighted(others, &KnownPatch::found)));
    differences[i] = open ? std::numeric_limits<double>::quiet_NaN()
                          : difference_from_known(patches[i], affine_of(refined(others, of_all)));
  });
  return differences;
}

}  // namespace chalcedony
