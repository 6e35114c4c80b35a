// Memberships are computed from log densities less their largest (log-sum-exp), so that far points
// neither overflow nor vanish. Sums go in eight lanes whatever the vector's width, then chunk by
// chunk, so the bits do not depend on the machine or the number of threads.
#include "core/cluster/gaussian_mixture.h"

#include <Eigen/Cholesky>
#include <array>
#include <cmath>
#include <numbers>

#include "core/cluster/scatter.h"
#include "core/error.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/cluster/gaussian_mixture.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/double_math-inl.h"

#ifndef CHALCEDONY_CORE_CLUSTER_GAUSSIAN_MIXTURE_CC_
#define CHALCEDONY_CORE_CLUSTER_GAUSSIAN_MIXTURE_CC_
namespace chalcedony {
/// Points of one block: features and weights as double, filled up with weight 0.
inline constexpr std::size_t kMixtureBlock = 256;
struct MixtureBlock {
  const double* features = nullptr;  // kMixtureBlock for each
  const double* weights = nullptr;
  std::size_t dimensions = 0;
  std::size_t size = 0;  // a multiple of 8
};
}  // namespace chalcedony
#endif

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {

// The sum over the block of what `add(d, i, sum)` adds to a sum, in eight lanes.
template <class Add>
HWY_INLINE double sum_in_lanes(std::size_t n, const Add& add) {
  const hn::CappedTag<double, 8> d;
  constexpr std::size_t kLanes = hn::MaxLanes(hn::CappedTag<double, 8>()), kParts = 8 / kLanes;
  hn::Vec<decltype(d)> parts[kParts];
  for (auto& part : parts) part = hn::Zero(d);
  for (std::size_t i = 0; i < n; i += 8)
    for (std::size_t p = 0; p < kParts; ++p) parts[p] = add(d, i + p * kLanes, parts[p]);
  HWY_ALIGN double lanes[8];
  for (std::size_t p = 0; p < kParts; ++p) hn::Store(parts[p], d, lanes + p * kLanes);
  return ((lanes[0] + lanes[1]) + (lanes[2] + lanes[3])) +
         ((lanes[4] + lanes[5]) + (lanes[6] + lanes[7]));
}

// Log densities of one component: its numbers are the offset, the means, and the rows of the
// inverse factor of its covariance up to the diagonal.
void log_densities(const MixtureBlock& block, const double* numbers, double* densities) {
  const hn::CappedTag<double, 8> d;
  const double* const mean = numbers + 1;
  for (std::size_t i = 0; i < block.size; i += hn::Lanes(d)) {
    const double* factor = mean + block.dimensions;
    auto length = hn::Zero(d);
    for (std::size_t row = 0; row < block.dimensions; ++row) {
      auto sum = hn::Zero(d);
      for (std::size_t f = 0; f <= row; ++f) {
        const auto step =
            hn::Sub(hn::LoadU(d, block.features + f * kMixtureBlock + i), hn::Set(d, mean[f]));
        sum = multiply_add(step, hn::Set(d, *factor++), sum);
      }
      length = multiply_add(sum, sum, length);
    }
    hn::StoreU(multiply_add(length, hn::Set(d, -0.5), hn::Set(d, numbers[0])), d, densities + i);
  }
}

// Turns log densities into weighted memberships; adds to log-likelihood and entropy.
void memberships(const MixtureBlock& block, std::size_t k, double* densities, double* likelihoods,
                 double* totals) {
  const hn::CappedTag<double, 8> d;
  for (std::size_t i = 0; i < block.size; i += hn::Lanes(d)) {
    auto most = hn::LoadU(d, densities + i);
    for (std::size_t c = 1; c < k; ++c)
      most = hn::Max(most, hn::LoadU(d, densities + c * kMixtureBlock + i));
    auto sum = hn::Zero(d), inner = hn::Zero(d);
    for (std::size_t c = 0; c < k; ++c) {
      double* const at = densities + c * kMixtureBlock + i;
      const auto below = hn::Sub(hn::LoadU(d, at), most);
      const auto part = exp_not_above_0(d, below);
      sum = hn::Add(sum, part);
      inner = multiply_add(part, below, inner);
      hn::StoreU(part, d, at);
    }
    const auto log_sum = log_not_below_1(d, sum);
    const auto weight = hn::LoadU(d, block.weights + i);
    const auto factor = hn::Div(weight, sum);
    for (std::size_t c = 0; c < k; ++c) {
      double* const at = densities + c * kMixtureBlock + i;
      hn::StoreU(hn::Mul(hn::LoadU(d, at), factor), d, at);
    }
    hn::StoreU(hn::Mul(weight, hn::Add(most, log_sum)), d, likelihoods + i);
    // -sum r ln r with r = part / sum.
    hn::StoreU(hn::Sub(hn::Mul(weight, log_sum), hn::Mul(inner, factor)), d,
               likelihoods + kMixtureBlock + i);
  }
  for (std::size_t t = 0; t < 2; ++t)
    totals[t] += sum_in_lanes(block.size, [&](auto tag, std::size_t i, auto sum) {
      return hn::Add(sum, hn::LoadU(tag, likelihoods + t * kMixtureBlock + i));
    });
}

// Adds the memberships' moments: their sum, the sums of features, and of products of two.
void add_moments(const MixtureBlock& block, const double* members, double* moments) {
  const auto feature = [&](auto d, std::size_t f, std::size_t i) {
    return hn::LoadU(d, block.features + f * kMixtureBlock + i);
  };
  *moments++ += sum_in_lanes(block.size, [&](auto d, std::size_t i, auto sum) {
    return hn::Add(sum, hn::LoadU(d, members + i));
  });
  for (std::size_t f = 0; f < block.dimensions; ++f)
    *moments++ += sum_in_lanes(block.size, [&](auto d, std::size_t i, auto sum) {
      return multiply_add(hn::LoadU(d, members + i), feature(d, f, i), sum);
    });
  for (std::size_t f = 0; f < block.dimensions; ++f)
    for (std::size_t g = f; g < block.dimensions; ++g)
      *moments++ += sum_in_lanes(block.size, [&](auto d, std::size_t i, auto sum) {
        const auto member = hn::Mul(hn::LoadU(d, members + i), feature(d, f, i));
        return multiply_add(member, feature(d, g, i), sum);
      });
}

// One block: densities, memberships, moments. `scratch` has room for k + 2 blocks.
void expect(const MixtureBlock& block, const double* numbers, std::size_t k, double* scratch,
            double* moments, double* totals) {
  const std::size_t d = block.dimensions, per_component = 1 + d + d * (d + 1) / 2;
  for (std::size_t c = 0; c < k; ++c)
    log_densities(block, numbers + c * per_component, scratch + c * kMixtureBlock);
  memberships(block, k, scratch, scratch + k * kMixtureBlock, totals);
  for (std::size_t c = 0; c < k; ++c)
    add_moments(block, scratch + c * kMixtureBlock, moments + c * per_component);
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {
namespace {

HWY_EXPORT(expect);

/// What one pass over all points sums up.
struct Expectation {
  std::vector<double> moments;     // for each component: sum, features, products of two
  std::array<double, 2> totals{};  // log-likelihood, entropy

  Expectation& operator+=(const Expectation& later) {
    moments.resize(later.moments.size());
    for (std::size_t m = 0; m < moments.size(); ++m) moments[m] += later.moments[m];
    for (std::size_t t = 0; t < totals.size(); ++t) totals[t] += later.totals[t];
    return *this;
  }
};

class Fit {
 public:
  Fit(const Points& points, const MixtureOptions& options)
      : points_(points), options_(options), dimensions_(points.dimensions()) {
    const Scatter scatter = scatter_of(points);
    shift_ = Eigen::Map<const Eigen::VectorXd>(scatter.mean.data(),
                                               static_cast<Eigen::Index>(dimensions_));
    pixels_ = scatter.weight;
    narrow_ = 1e-6 * std::max(1e-30, scatter.sum_of_squares / pixels_);
  }

  double pixels() const { return pixels_; }

  /// Components from groups, each point wholly in the nearest one.
  std::vector<Component> from_groups(const Centers& centers) const {
    const std::size_t k = centers.size() / dimensions_;
    std::vector<Component> components(k);
    for (std::size_t c = 0; c < k; ++c) {
      components[c].weight = 1.0 / static_cast<double>(k);
      components[c].mean = Eigen::Map<const Eigen::VectorXd>(centers.data() + c * dimensions_, d());
      components[c].covariance = narrow_ * Eigen::MatrixXd::Identity(d(), d());
    }
    return maximise(expect_all(components, Eigen::VectorXd::Zero(d())));
  }

  /// Up to so many iterations; whether it settled.
  bool iterate(GaussianMixture& mixture, unsigned most) const {
    double before = -1e300;
    for (unsigned i = 0; i < most; ++i) {
      const Expectation now = expect_all(mixture.components, options_.smallest_spread);
      mixture.log_likelihood = now.totals[0];
      mixture.entropy = now.totals[1];
      if (now.totals[0] - before < options_.gain * pixels_) return true;
      before = now.totals[0];
      const std::size_t k = mixture.components.size();
      mixture.components = maximise(now);
      // A likelihood with fewer components does not compare with the one before.
      if (mixture.components.size() < k) before = -1e300;
      mixture.faded += k - mixture.components.size();
      ++mixture.iterations;
    }
    const Expectation last = expect_all(mixture.components, options_.smallest_spread);
    mixture.log_likelihood = last.totals[0];
    mixture.entropy = last.totals[1];
    return false;
  }

  std::size_t parameters(std::size_t k) const {
    const std::size_t d = dimensions_, full = d * (d + 1) / 2;
    switch (options_.shape) {
      case MixtureShape::kOwn:
        return k * (d + full) + k - 1;
      case MixtureShape::kAxes:
        return k * (d + d) + k - 1;
      case MixtureShape::kRound:
        return k * (d + 1) + k - 1;
      case MixtureShape::kShared:
        return k * d + full + k - 1;
    }
    return 0;
  }

 private:
  Eigen::Index d() const { return static_cast<Eigen::Index>(dimensions_); }
  std::size_t per_component() const {
    return 1 + dimensions_ + dimensions_ * (dimensions_ + 1) / 2;
  }

  /// What the kernel needs of the components, with means taken from the shift.
  std::vector<double> numbers_of(const std::vector<Component>& components,
                                 const Eigen::VectorXd& floor) const {
    std::vector<double> numbers;
    const Eigen::MatrixXd added = floor.array().square().matrix().asDiagonal();
    for (const Component& c : components) {
      const Eigen::LLT<Eigen::MatrixXd> factor(c.covariance + added);
      const Eigen::MatrixXd lower = factor.matrixL();
      const Eigen::MatrixXd inverse =
          factor.matrixL().solve(Eigen::MatrixXd(Eigen::MatrixXd::Identity(d(), d())));
      numbers.push_back(std::log(c.weight) - lower.diagonal().array().log().sum() -
                        0.5 * static_cast<double>(dimensions_) * std::log(2 * std::numbers::pi));
      for (Eigen::Index f = 0; f < d(); ++f) numbers.push_back(c.mean[f] - shift_[f]);
      for (Eigen::Index row = 0; row < d(); ++row)
        for (Eigen::Index f = 0; f <= row; ++f) numbers.push_back(inverse(row, f));
    }
    return numbers;
  }

  Expectation expect_all(const std::vector<Component>& components,
                         const Eigen::VectorXd& floor) const {
    const std::vector<double> numbers = numbers_of(components, floor);
    const std::size_t k = components.size();
    return sum_over_chunks(points_.size, Expectation{}, [&](std::size_t begin, std::size_t end) {
      Expectation sums;
      sums.moments.resize(k * per_component());
      std::vector<double> features(dimensions_ * kMixtureBlock), weights(kMixtureBlock),
          scratch((k + 2) * kMixtureBlock);
      for (std::size_t at = begin; at < end; at += kMixtureBlock) {
        const MixtureBlock block = load(at, std::min(end, at + kMixtureBlock), features, weights);
        HWY_DYNAMIC_DISPATCH(expect)
        (block, numbers.data(), k, scratch.data(), sums.moments.data(), sums.totals.data());
      }
      return sums;
    });
  }

  MixtureBlock load(std::size_t begin, std::size_t end, std::vector<double>& features,
                    std::vector<double>& weights) const {
    const std::size_t n = end - begin, padded = (n + 7) / 8 * 8;
    for (std::size_t f = 0; f < dimensions_; ++f) {
      const float* const from = points_.features[f] + begin;
      const double shift = shift_[static_cast<Eigen::Index>(f)];
      double* const __restrict to = features.data() + f * kMixtureBlock;
      for (std::size_t i = 0; i < n; ++i) to[i] = static_cast<double>(from[i]) - shift;
      std::fill(to + n, to + padded, 0.0);
    }
    std::copy_n(points_.weights + begin, n, weights.begin());
    std::fill(weights.begin() + static_cast<std::ptrdiff_t>(n),
              weights.begin() + static_cast<std::ptrdiff_t>(padded), 0.0);
    return {features.data(), weights.data(), dimensions_, padded};
  }

  /// The components that make the memberships most likely; those that faded are left out.
  std::vector<Component> maximise(const Expectation& sums) const {
    std::vector<Component> components;
    double kept = 0;
    const std::size_t k = sums.moments.size() / per_component();
    for (std::size_t c = 0; c < k; ++c) {
      const double* moment = sums.moments.data() + c * per_component();
      const double members = *moment++;
      if (members < static_cast<double>(dimensions_ + 2)) continue;
      Component& one = components.emplace_back();
      one.weight = members;
      kept += members;
      const Eigen::VectorXd mean = Eigen::Map<const Eigen::VectorXd>(moment, d()) / members;
      moment += dimensions_;
      one.mean = shift_ + mean;
      one.covariance = Eigen::MatrixXd::Zero(d(), d());
      for (Eigen::Index f = 0; f < d(); ++f)
        for (Eigen::Index g = f; g < d(); ++g) {
          const double value = *moment++ / members - mean[f] * mean[g];
          one.covariance(f, g) = one.covariance(g, f) = f == g ? std::max(value, 0.0) : value;
        }
    }
    if (components.empty())
      throw InputError("there are too few pixels for a mixture", "count more pixels");
    for (Component& one : components) one.weight /= kept;
    shape(components);
    return components;
  }

  void shape(std::vector<Component>& components) const {
    Eigen::MatrixXd shared = Eigen::MatrixXd::Zero(d(), d());
    for (const Component& one : components) shared += one.weight * one.covariance;
    for (Component& one : components) {
      if (options_.shape == MixtureShape::kAxes)
        one.covariance = Eigen::MatrixXd(one.covariance.diagonal().asDiagonal());
      if (options_.shape == MixtureShape::kRound)
        one.covariance = one.covariance.trace() / static_cast<double>(dimensions_) *
                         Eigen::MatrixXd::Identity(d(), d());
      if (options_.shape == MixtureShape::kShared) one.covariance = shared;
    }
  }

  const Points& points_;
  const MixtureOptions& options_;
  std::size_t dimensions_;
  Eigen::VectorXd shift_;  // the mean of all points; moments are taken from it
  double pixels_ = 0;
  // The variance of bells so narrow that a point belongs to the nearest center alone.
  double narrow_ = 0;
};

}  // namespace

double GaussianMixture::bic() const {
  return static_cast<double>(parameters) * std::log(pixels) - 2 * log_likelihood;
}

GaussianMixture fit_mixture(const DrawnPoints& points, const std::vector<Centers>& starts,
                            const MixtureOptions& options) {
  const Fit some(points.drawn(), options), all(points.all(), options);
  const double pixels_each = all.pixels() / some.pixels();
  std::vector<GaussianMixture> begun(starts.size());
  for_each_start(starts.size(), [&](std::size_t r) {
    GaussianMixture& one = begun[r];
    one.components = some.from_groups(starts[r]);
    one.faded = starts[r].size() / points.all().dimensions() - one.components.size();
    one.best = r;
    some.iterate(one, options.first_iterations);
  });
  std::vector<MixtureRun> runs;
  for (const GaussianMixture& one : begun)
    runs.push_back({pixels_each * one.log_likelihood, one.iterations});
  const auto less = [](const GaussianMixture& a, const GaussianMixture& b) {
    return a.log_likelihood < b.log_likelihood;
  };
  GaussianMixture best = std::move(*std::max_element(begun.begin(), begun.end(), less));
  if (points.drawn().size < points.all().size) some.iterate(best, options.most_iterations);
  best.settled = all.iterate(best, options.most_iterations);
  best.parameters = all.parameters(best.components.size());
  best.pixels = all.pixels();
  best.runs = std::move(runs);
  return best;
}

}  // namespace chalcedony
#endif
