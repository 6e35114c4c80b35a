// Statistics of color differences that come one by one.
#ifndef CHALCEDONY_CORE_STATS_DISTANCE_SUMS_H_
#define CHALCEDONY_CORE_STATS_DISTANCE_SUMS_H_

#include <algorithm>
#include <cmath>
#include <cstddef>
#include <vector>

namespace chalcedony {

struct DistanceSummary {
  double mean = 0;
  double root_mean_square = 0;
  double median = 0;         // to a step
  double percentile_95 = 0;  // 95 % of the weight does not exceed it; to a step
  double largest = 0;
};

/// Gathers weighted distances.
class DistanceSums {
 public:
  /// `steps`: how many a unit has, to which quantiles are told; the default is for delta E.
  explicit DistanceSums(double steps = 100) : steps_(steps) {}

  void add(double distance, double weight = 1) {
    largest_ = std::max(largest_, distance);
    weight_ += weight;
    sum_ += weight * distance;
    squares_ += weight * distance * distance;
    const auto step = static_cast<std::size_t>(std::min(distance * steps_, kLastStep));
    if (step >= weights_.size()) weights_.resize(step + 1);
    weights_[step] += weight;
  }

  /// Adds what was gathered with the same steps.
  DistanceSums& operator+=(const DistanceSums& other) {
    largest_ = std::max(largest_, other.largest_);
    weight_ += other.weight_;
    sum_ += other.sum_;
    squares_ += other.squares_;
    weights_.resize(std::max(weights_.size(), other.weights_.size()));
    for (std::size_t step = 0; step < other.weights_.size(); ++step)
      weights_[step] += other.weights_[step];
    return *this;
  }

  /// All 0 when nothing was added.
  DistanceSummary summary() const {
    if (weight_ <= 0) return {};
    return {sum_ / weight_, std::sqrt(squares_ / weight_), quantile(0.5), quantile(0.95), largest_};
  }

 private:
  double quantile(double share) const {
    double below = 0;
    std::size_t step = 0;
    while (step < weights_.size() && (below += weights_[step]) < share * weight_) ++step;
    return std::min(largest_, static_cast<double>(step + 1) / steps_);
  }

  static constexpr double kLastStep = 20000;  // what lies beyond is counted there

  double steps_;
  double weight_ = 0, sum_ = 0, squares_ = 0, largest_ = 0;
  std::vector<double> weights_;  // of each step, as far as there were any
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_STATS_DISTANCE_SUMS_H_
