// The quadratic form is the squared length of L^-1 (x - m), with L the Cholesky factor of the
// covariance: rows of L^-1 have only as many terms as their number.
#include "core/learn/gaussian.h"

#include <Eigen/Cholesky>
#include <cmath>

#include "core/error.h"
#include "core/pixel/planes.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/learn/gaussian.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/color/vector_math-inl.h"
#include "core/learn/best_class-inl.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {

// The score of class c for the pixels from i on. Per class in `numbers`: the offset, the means,
// then the rows of L^-1, each up to its diagonal.
template <class D>
HWY_INLINE hn::Vec<D> score(D d, const std::vector<const float*>& features, const float* numbers,
                            std::size_t i) {
  const std::size_t dimensions = features.size();
  const float* const mean = numbers + 1;
  const float* factor = mean + dimensions;
  auto length = hn::Zero(d);
  for (std::size_t row = 0; row < dimensions; ++row) {
    auto sum = hn::Zero(d);
    for (std::size_t f = 0; f <= row; ++f) {
      const auto step = hn::Sub(hn::LoadU(d, features[f] + i), hn::Set(d, mean[f]));
      sum = hn::Add(sum, hn::Mul(step, hn::Set(d, *factor++)));
    }
    length = hn::Add(length, hn::Mul(sum, sum));
  }
  return hn::Sub(hn::Set(d, numbers[0]), hn::Mul(length, hn::Set(d, 0.5f)));
}

void best_gaussians(const std::vector<const float*>& features, const std::vector<float>& numbers,
                    std::size_t classes, std::size_t n, std::uint8_t* labels) {
  const std::size_t per_class = numbers.size() / classes;
  best_classes(classes, n, labels, [&](auto d, std::size_t c, std::size_t i) {
    return score(d, features, numbers.data() + c * per_class, i);
  });
}

// The softmax of the scores; 0 where they are not numbers.
void shares_of_gaussians(const std::vector<const float*>& features,
                         const std::vector<float>& numbers, std::size_t n,
                         const std::vector<float*>& planes) {
  const hn::CappedTag<float, kPlanePadding> d;
  const std::size_t per_class = numbers.size() / planes.size();
  for (std::size_t i = 0; i < n; i += hn::Lanes(d)) {
    auto most = hn::Set(d, -3.4e38f);
    for (std::size_t c = 0; c < planes.size(); ++c) {
      const auto here = score(d, features, numbers.data() + c * per_class, i);
      hn::StoreU(here, d, planes[c] + i);
      most = hn::IfThenElse(hn::Gt(here, most), here, most);
    }
    auto sum = hn::Zero(d);
    for (std::size_t c = 0; c < planes.size(); ++c) {
      const auto below = hn::Sub(hn::LoadU(d, planes[c] + i), most);
      const auto part =
          hn::IfThenElseZero(hn::Gt(below, hn::Set(d, -80.0f)),
                             exp2_bounded(d, hn::Mul(below, hn::Set(d, 1.442695041f))));
      sum = hn::Add(sum, part);
      hn::StoreU(part, d, planes[c] + i);
    }
    const auto factor =
        hn::IfThenElseZero(hn::Gt(sum, hn::Zero(d)), hn::Div(hn::Set(d, 1.0f), sum));
    for (std::size_t c = 0; c < planes.size(); ++c)
      hn::StoreU(hn::Mul(hn::LoadU(d, planes[c] + i), factor), d, planes[c] + i);
  }
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {
namespace {

HWY_EXPORT(best_gaussians);
HWY_EXPORT(shares_of_gaussians);

class Gaussians : public Classifier {
 public:
  /// `likelihood` adds what a density and a prior add to the distance.
  Gaussians(const Model& model, bool likelihood)
      : classes_(model.classes.size()), likelihood_(likelihood) {
    const Eigen::VectorXd floor = smallest_spread(model);
    for (const ModelClass& c : model.classes) add(c, floor, likelihood);
  }

  void classify(const std::vector<const float*>& features, std::size_t n,
                std::uint8_t* labels) const override {
    HWY_DYNAMIC_DISPATCH(best_gaussians)(features, numbers_, classes_, n, labels);
  }

  void probabilities(const std::vector<const float*>& features, std::size_t n,
                     const std::vector<float*>& planes) const override {
    if (!likelihood_) return Classifier::probabilities(features, n, planes);
    HWY_DYNAMIC_DISPATCH(shares_of_gaussians)(features, numbers_, n, planes);
  }

 private:
  void add(const ModelClass& c, const Eigen::VectorXd& floor, bool likelihood) {
    const Eigen::Index d = c.statistics.mean.size();
    if (c.statistics.count < static_cast<std::uint64_t>(d) + 2)
      throw InputError("class '" + c.name + "' has " + std::to_string(c.statistics.count) +
                           " sample pixels, too few for the covariance of " + std::to_string(d) +
                           " features",
                       "draw at least " + std::to_string(d + 2) + ", or use minimum-distance");
    const Eigen::MatrixXd covariance =
        c.statistics.covariance + Eigen::MatrixXd(floor.array().square().matrix().asDiagonal());
    const Eigen::LLT<Eigen::MatrixXd> factor(covariance);
    if (factor.info() != Eigen::Success)
      throw InputError("the covariance of class '" + c.name + "' cannot be inverted",
                       "leave out a feature that follows from the others");
    const Eigen::MatrixXd lower = factor.matrixL();
    const Eigen::MatrixXd inverse =
        factor.matrixL().solve(Eigen::MatrixXd(Eigen::MatrixXd::Identity(d, d)));
    const double half_log_determinant = lower.diagonal().array().log().sum();
    const double offset = likelihood ? std::log(c.prior) - half_log_determinant : 0;
    numbers_.push_back(static_cast<float>(offset));
    for (const double mean : c.statistics.mean) numbers_.push_back(static_cast<float>(mean));
    for (Eigen::Index row = 0; row < d; ++row)
      for (Eigen::Index f = 0; f <= row; ++f)
        numbers_.push_back(static_cast<float>(inverse(row, f)));
  }

  std::size_t classes_;
  bool likelihood_;
  std::vector<float> numbers_;
};

}  // namespace

std::unique_ptr<Classifier> make_mahalanobis(const Model& model) {
  return std::make_unique<Gaussians>(model, false);
}

std::unique_ptr<Classifier> make_maximum_likelihood(const Model& model) {
  return std::make_unique<Gaussians>(model, true);
}

}  // namespace chalcedony
#endif
