#include "core/stats/distance_sums.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>

#include "core/planes.h"
#include "core/stats/apart_sums.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/stats/distance_sums.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#ifndef CHALCEDONY_CORE_STATS_DISTANCE_SUMS_CC_
#define CHALCEDONY_CORE_STATS_DISTANCE_SUMS_CC_
namespace chalcedony {

constexpr double kLastStep = 20000;  // what lies beyond is counted there

/// What is found of a few distances; those that are not a number are taken for 0.
struct DistanceRun {
  ApartSums sums, squares, known, largest;       // `known`: the weight of those that are numbers
  std::array<std::int32_t, kBlockPixels> steps;  // of each
};

}  // namespace chalcedony
#endif

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

using ApartTag = hn::CappedTag<double, kSumsApart>;

/// Works out a run of `n`, a multiple of kSumsApart; weights_from(i) are those of distances i, ...
template <class Weights>
HWY_INLINE void sum_weighted(const float* HWY_RESTRICT distances, const Weights& weights_from,
                             std::size_t n, double steps, DistanceRun& out) {
  const ApartTag d;
  const hn::Rebind<float, ApartTag> df;
  const hn::Rebind<std::int32_t, ApartTag> di;
  const auto scale = hn::Set(d, steps), last = hn::Set(d, kLastStep);
  for (std::size_t k = 0; k < kSumsApart; k += hn::Lanes(d)) {
    auto sum = hn::Zero(d), squares = sum, known = sum, largest = sum;
    for (std::size_t i = k; i < n; i += kSumsApart) {
      const auto distance = hn::PromoteTo(d, hn::LoadU(df, distances + i));
      const auto number = hn::Eq(distance, distance);
      const auto v = hn::IfThenElseZero(number, distance), weight = weights_from(i);
      sum = hn::Add(sum, hn::Mul(v, weight));
      squares = hn::Add(squares, hn::Mul(hn::Mul(v, v), weight));
      known = hn::Add(known, hn::IfThenElseZero(number, weight));
      largest = hn::Max(largest, v);
      hn::StoreU(hn::DemoteTo(di, hn::Min(hn::Mul(v, scale), last)), di, out.steps.data() + i);
    }
    hn::StoreU(sum, d, out.sums.data() + k);
    hn::StoreU(squares, d, out.squares.data() + k);
    hn::StoreU(known, d, out.known.data() + k);
    hn::StoreU(largest, d, out.largest.data() + k);
  }
}

void sum_distances(const float* HWY_RESTRICT distances, const double* weights, std::size_t n,
                   double steps, DistanceRun& out) {
  const ApartTag d;
  const auto own = [=](std::size_t i) HWY_ATTR { return hn::LoadU(ApartTag(), weights + i); };
  const auto one = [=](std::size_t) HWY_ATTR { return hn::Set(d, 1.0); };
  if (weights) {
    sum_weighted(distances, own, n, steps, out);
  } else {
    sum_weighted(distances, one, n, steps, out);
  }
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {

HWY_EXPORT(sum_distances);

void DistanceSums::add(double distance, double weight) {
  largest_ = std::max(largest_, distance);
  weight_ += weight;
  sum_ += weight * distance;
  squares_ += weight * distance * distance;
  weight_of(distance) += weight;
}

void DistanceSums::add(const float* distances, std::size_t n, const double* weights) {
  for (std::size_t at = 0; at < n; at += kBlockPixels)
    add_run(distances + at, std::min(kBlockPixels, n - at), weights ? weights + at : nullptr);
}

void DistanceSums::add_run(const float* distances, std::size_t n, const double* weights) {
  const std::size_t whole = n / kSumsApart * kSumsApart;
  DistanceRun run;
  HWY_DYNAMIC_DISPATCH(sum_distances)(distances, weights, whole, steps_, run);
  const double largest = *std::max_element(run.largest.begin(), run.largest.end());
  weight_ += total(run.known);
  sum_ += total(run.sums);
  squares_ += total(run.squares);
  largest_ = std::max(largest_, largest);
  weight_of(largest);  // makes room
  double* const of_steps = weights_.data();
  const auto weight_at = [&](std::size_t i) {
    return std::isnan(distances[i]) ? 0 : weights ? weights[i] : 1;
  };
  for (std::size_t i = 0; i < whole; ++i) of_steps[run.steps[i]] += weight_at(i);
  for (std::size_t i = whole; i < n; ++i)
    if (!std::isnan(distances[i])) add(static_cast<double>(distances[i]), weight_at(i));
}

double& DistanceSums::weight_of(double distance) {
  const auto step = static_cast<std::size_t>(std::min(distance * steps_, kLastStep));
  if (step >= weights_.size()) weights_.resize(step + 1);
  return weights_[step];
}

DistanceSums& DistanceSums::operator+=(const DistanceSums& other) {
  largest_ = std::max(largest_, other.largest_);
  weight_ += other.weight_;
  sum_ += other.sum_;
  squares_ += other.squares_;
  weights_.resize(std::max(weights_.size(), other.weights_.size()));
  for (std::size_t step = 0; step < other.weights_.size(); ++step)
    weights_[step] += other.weights_[step];
  return *this;
}

DistanceSummary DistanceSums::summary() const {
  if (weight_ <= 0) return {};
  return {sum_ / weight_, std::sqrt(squares_ / weight_), quantile(0.5), quantile(0.95), largest_};
}

double DistanceSums::quantile(double share) const {
  double below = 0;
  std::size_t step = 0;
  while (step < weights_.size() && (below += weights_[step]) < share * weight_) ++step;
  return std::min(largest_, static_cast<double>(step + 1) / steps_);
}

}  // namespace chalcedony
#endif
