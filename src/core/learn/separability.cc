#include "core/learn/separability.h"

#include <Eigen/Cholesky>
#include <cmath>

namespace chalcedony {
namespace {

double log_determinant(const Eigen::LLT<Eigen::MatrixXd>& factor) {
  return 2 * factor.matrixLLT().diagonal().array().log().sum();
}

}  // namespace

std::optional<Separability> separability(const ClassStatistics& a, const ClassStatistics& b,
                                         const Eigen::VectorXd& smallest_spread) {
  const auto d = a.mean.size();
  const auto enough = static_cast<std::uint64_t>(d) + 2;
  if (a.count < enough || b.count < enough) return std::nullopt;
  const Eigen::MatrixXd floor = smallest_spread.array().square().matrix().asDiagonal();
  const Eigen::MatrixXd ca = a.covariance + floor, cb = b.covariance + floor;
  const Eigen::MatrixXd mean_covariance = (ca + cb) / 2;
  const Eigen::LLT<Eigen::MatrixXd> fa(ca), fb(cb), fm(mean_covariance);
  if (fa.info() != Eigen::Success || fb.info() != Eigen::Success) return std::nullopt;
  const Eigen::VectorXd step = a.mean - b.mean;

  const double bhattacharyya =
      step.dot(fm.solve(step)) / 8 +
      (log_determinant(fm) - (log_determinant(fa) + log_determinant(fb)) / 2) / 2;

  const Eigen::MatrixXd identity = Eigen::MatrixXd::Identity(d, d);
  const Eigen::MatrixXd ia = fa.solve(identity), ib = fb.solve(identity);
  const double divergence = ((ca - cb) * (ib - ia)).trace() / 2 + step.dot((ia + ib) * step) / 2;

  Separability out;
  out.jeffries_matusita = 2 * -std::expm1(-bhattacharyya);
  out.transformed_divergence = 2 * -std::expm1(-divergence / 8);
  out.confusion_bound = 50 * std::exp(-bhattacharyya);
  return out;
}

}  // namespace chalcedony
