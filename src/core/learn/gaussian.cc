// The quadratic form is the squared length of L^-1 (x - m), with L the Cholesky factor of the
// covariance: rows of L^-1 have only as many terms as their number.
#include "core/learn/gaussian.h"

#include <Eigen/Cholesky>
#include <algorithm>
#include <cmath>
#include <limits>

#include "core/error.h"
#include "core/planes.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/learn/gaussian.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/color/vector_math-inl.h"
#include "core/learn/best_class-inl.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {

// The quadratic form for the pixels from i on. Per class in `numbers`: the offset, the means, then
// the rows of L^-1, each up to its diagonal.
template <class Size, class D>
HWY_INLINE hn::Vec<D> squared_length(Size, D d, const float* const* features, std::size_t count,
                                     const float* numbers, std::size_t i) {
  const std::size_t dimensions = Size::of(count);
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
  return length;
}

template <class Size, class D>
HWY_INLINE hn::Vec<D> score(Size size, D d, const float* const* features, std::size_t count,
                            const float* numbers, std::size_t i) {
  const auto length = squared_length(size, d, features, count, numbers, i);
  return hn::Sub(hn::Set(d, numbers[0]), hn::Mul(length, hn::Set(d, 0.5f)));
}

void best_gaussians(const std::vector<const float*>& features, const std::vector<float>& numbers,
                    const ScoreLimits& limits, std::size_t n, Label* labels,
                    const PixelFlags& flags) {
  const std::size_t per_class = numbers.size() / limits.accepted.size();
  const float* const* planes = features.data();
  const std::size_t count = features.size();
  const float* const first = numbers.data();
  with_dimensions(count, [&](auto size) {
    best_classes(limits, n, labels, flags, [=](auto d, std::size_t c, std::size_t i) {
      return score(size, d, planes, count, first + c * per_class, i);
    });
  });
}

void distances_from_gaussians(const std::vector<const float*>& features,
                              const std::vector<float>& numbers, std::size_t n,
                              const std::vector<float*>& planes) {
  const std::size_t per_class = numbers.size() / planes.size();
  distances_to_classes(n, planes, [&](auto d, std::size_t c, std::size_t i) {
    return hn::Sqrt(squared_length(Dimensions<0>(), d, features.data(), features.size(),
                                   numbers.data() + c * per_class, i));
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
      const auto here = score(Dimensions<0>(), d, features.data(), features.size(),
                              numbers.data() + c * per_class, i);
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
HWY_EXPORT(distances_from_gaussians);
HWY_EXPORT(shares_of_gaussians);

/// What is computed from the covariance of a class.
struct Shape {
  Eigen::MatrixXd inverse_factor;  // L^-1
  double half_log_determinant = 0;
};

Shape shape_of(const ModelClass& c, const Eigen::VectorXd& floor) {
  const Eigen::Index d = c.statistics.mean.size();
  if (c.statistics.count < static_cast<std::uint64_t>(d) + 2)
    throw InputError("class '" + c.name + "' has " + std::to_string(c.statistics.count) +
                         (c.statistics.count == 1 ? " sample pixel" : " sample pixels") +
                         ", too few for the covariance of " + std::to_string(d) + " features",
                     "draw at least " + std::to_string(d + 2) + ", or use minimum-distance");
  const Eigen::MatrixXd covariance =
      c.statistics.covariance + Eigen::MatrixXd(floor.array().square().matrix().asDiagonal());
  const Eigen::LLT<Eigen::MatrixXd> factor(covariance);
  if (factor.info() != Eigen::Success)
    throw InputError("the covariance of class '" + c.name + "' cannot be inverted",
                     "leave out a feature that follows from the others");
  const Eigen::MatrixXd lower = factor.matrixL();
  return {factor.matrixL().solve(Eigen::MatrixXd(Eigen::MatrixXd::Identity(d, d))),
          lower.diagonal().array().log().sum()};
}

class Gaussians : public Classifier {
 public:
  /// `likelihood` adds what a density and a prior add to the distance.
  Gaussians(const Model& model, const ClassLimits& limits, bool likelihood)
      : likelihood_(likelihood) {
    const Eigen::VectorXd floor = smallest_spread(model);
    std::vector<double> offsets;
    for (const ModelClass& c : model.classes) {
      const Shape shape = shape_of(c, floor);
      offsets.push_back(likelihood ? std::log(c.prior) - shape.half_log_determinant : 0);
      add(c, shape, offsets.back());
    }
    limits_ = score_limits(limits, offsets.size(), [&](std::size_t entry, double distance) {
      return offsets[entry] - distance * distance / 2;
    });
  }

  void classify(const std::vector<const float*>& features, std::size_t n, Label* labels,
                const PixelFlags& flags) const override {
    HWY_DYNAMIC_DISPATCH(best_gaussians)(features, numbers_, limits_, n, labels, flags);
  }

  void distances(const std::vector<const float*>& features, std::size_t n,
                 const std::vector<float*>& planes) const override {
    HWY_DYNAMIC_DISPATCH(distances_from_gaussians)(features, numbers_, n, planes);
  }

  bool knows_likelihood() const override { return likelihood_; }

  void probabilities(const std::vector<const float*>& features, std::size_t n,
                     const std::vector<float*>& planes) const override {
    if (!likelihood_) return Classifier::probabilities(features, n, planes);
    HWY_DYNAMIC_DISPATCH(shares_of_gaussians)(features, numbers_, n, planes);
  }

  std::size_t classes() const override { return limits_.accepted.size(); }

 private:
  void add(const ModelClass& c, const Shape& shape, double offset) {
    numbers_.push_back(static_cast<float>(offset));
    for (const double mean : c.statistics.mean) numbers_.push_back(static_cast<float>(mean));
    for (Eigen::Index row = 0; row < shape.inverse_factor.rows(); ++row)
      for (Eigen::Index f = 0; f <= row; ++f)
        numbers_.push_back(static_cast<float>(shape.inverse_factor(row, f)));
  }

  bool likelihood_;
  std::vector<float> numbers_;
  ScoreLimits limits_;
};

Explanation explain_gaussians(const Model& model, const std::vector<double>& features,
                              bool likelihood) {
  Explanation out;
  const Eigen::VectorXd floor = smallest_spread(model);
  const Eigen::Map<const Eigen::VectorXd> pixel(features.data(),
                                                static_cast<Eigen::Index>(features.size()));
  double most = -std::numeric_limits<double>::infinity(), sum = 0;
  for (const ModelClass& c : model.classes) {
    ClassExplanation& one = out.classes.emplace_back();
    const Shape shape = shape_of(c, floor);
    const Eigen::VectorXd step = pixel - c.statistics.mean;
    const Eigen::VectorXd weighted =
        shape.inverse_factor.transpose() * (shape.inverse_factor * step);
    for (Eigen::Index f = 0; f < step.size(); ++f)
      one.terms.push_back({c.statistics.mean[f], step[f], weighted[f], step[f] * weighted[f]});
    one.sum = step.dot(weighted);
    one.distance = std::sqrt(one.sum);
    one.score = -one.sum / 2;
    if (!likelihood) continue;
    one.log_determinant = 2 * shape.half_log_determinant;
    one.log_prior = std::log(c.prior);
    one.score += *one.log_prior - shape.half_log_determinant;
    most = std::max(most, one.score);
  }
  if (!likelihood) return out;
  for (const ClassExplanation& one : out.classes) sum += std::exp(one.score - most);
  for (ClassExplanation& one : out.classes) one.probability = std::exp(one.score - most) / sum;
  return out;
}

}  // namespace

std::unique_ptr<Classifier> make_mahalanobis(const Model& model, const ClassLimits& limits) {
  return std::make_unique<Gaussians>(model, limits, false);
}

std::unique_ptr<Classifier> make_maximum_likelihood(const Model& model, const ClassLimits& limits) {
  return std::make_unique<Gaussians>(model, limits, true);
}

Explanation explain_mahalanobis(const Model& model, const std::vector<double>& features) {
  return explain_gaussians(model, features, false);
}

Explanation explain_maximum_likelihood(const Model& model, const std::vector<double>& features) {
  return explain_gaussians(model, features, true);
}

}  // namespace chalcedony
#endif
