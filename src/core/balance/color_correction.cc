#include "core/balance/color_correction.h"

#include <Eigen/Cholesky>
#include <Eigen/Core>
#include <Eigen/QR>
#include <algorithm>
#include <cmath>
#include <limits>
#include <string>

#include "core/color/ciede2000.h"
#include "core/error.h"

namespace chalcedony {
namespace {

using Matrix3 = Eigen::Matrix3d;
using Vector3 = Eigen::Vector3d;
using Parameters = Eigen::Matrix<double, 9, 1>;  // the matrix, row by row

constexpr double kEpsilon = 216.0 / 24389.0, kKappa = 24389.0 / 27.0;
constexpr double kDarkest = 0.01;  // of Y: what is darker weighs no more
constexpr int kMostSteps = 100;
constexpr double kEnough = 1e-12;      // of the sum of squares that a step saves
constexpr double kOnePlane = 1e-3;     // least over greatest spread of the patches' colors
constexpr double kMostDamping = 1e12;  // nothing near is better

Vector3 vector_of(const std::array<double, 3>& v) { return {v[0], v[1], v[2]}; }

/// The function of CIE 15:2018, 8.2.1, that Lab takes of X / Xn, and how it rises.
double lab_root(double t) { return t > kEpsilon ? std::cbrt(t) : (kKappa * t + 16) / 116; }
double lab_root_rise(double t) {
  if (t <= kEpsilon) return kKappa / 116;
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

/// Linear least squares, where each patch weighs by its darkness as the eye sees it.
Matrix3 first_guess(const std::vector<KnownPatch>& patches) {
  const auto rows = static_cast<Eigen::Index>(patches.size());
  Eigen::MatrixXd found(rows, 3), known(rows, 3);
  for (Eigen::Index i = 0; i < rows; ++i) {
    const KnownPatch& patch = patches[static_cast<std::size_t>(i)];
    const double weight = 1 / std::max(patch.known[1], kDarkest);
    found.row(i) = weight * vector_of(patch.found).transpose();
    known.row(i) = weight * vector_of(patch.known).transpose();
  }
  const Eigen::ColPivHouseholderQR<Eigen::MatrixXd> solver(found);
  const Eigen::VectorXd spread = solver.matrixR().diagonal().cwiseAbs();
  if (rows < 3 || !(spread.minCoeff() > kOnePlane * spread.maxCoeff()))
    throw InputError("the colors of the patches lie in one plane, as grays alone do",
                     "add patches of other hues; for grays there is balance --neutral");
  return solver.solve(known).transpose();
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

Affine fitted_to(const std::vector<KnownPatch>& patches) {
  const Matrix3 matrix = refined(patches, first_guess(patches));
  Affine correction;
  for (std::size_t i = 0; i < 3; ++i)
    for (std::size_t j = 0; j < 3; ++j)
      correction.m[i][j] = matrix(static_cast<Eigen::Index>(i), static_cast<Eigen::Index>(j));
  return correction;
}

}  // namespace

Affine fitted_correction(const std::vector<KnownPatch>& patches) {
  if (patches.size() < kFewestPatches)
    throw InputError("has " + std::to_string(patches.size()) +
                         " patches to correct by, and it takes " + std::to_string(kFewestPatches),
                     "add patches of known color");
  return fitted_to(patches);
}

std::vector<double> differences_from_known(const std::vector<KnownPatch>& patches,
                                           const Affine& correction) {
  const auto lab = [](const std::array<double, 3>& xyz) {
    const Vector3 v = lab_of(vector_of(xyz));
    return std::array<double, 3>{v[0], v[1], v[2]};
  };
  std::vector<double> differences;
  for (const KnownPatch& patch : patches)
    differences.push_back(ciede2000(lab(image_of(correction, patch.found)), lab(patch.known)));
  return differences;
}

std::vector<double> left_out_differences(const std::vector<KnownPatch>& patches) {
  std::vector<double> differences;
  for (std::size_t i = 0; i < patches.size(); ++i) {
    std::vector<KnownPatch> others = patches;
    others.erase(others.begin() + static_cast<std::ptrdiff_t>(i));
    try {
      const Affine correction = fitted_to(others);
      differences.push_back(differences_from_known({patches[i]}, correction).front());
    } catch (const InputError&) {
      differences.push_back(std::numeric_limits<double>::quiet_NaN());
    }
  }
  return differences;
}

}  // namespace chalcedony
