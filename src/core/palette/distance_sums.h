// Statistics of color differences that come one by one.
#ifndef CHALCEDONY_CORE_PALETTE_DISTANCE_SUMS_H_
#define CHALCEDONY_CORE_PALETTE_DISTANCE_SUMS_H_

#include <algorithm>
#include <cmath>
#include <cstddef>
#include <vector>

namespace chalcedony {

struct DistanceSummary {
  double mean = 0;
  double root_mean_square = 0;
  double percentile_95 = 0;  // 95 % of the weight does not exceed it; to 0.01
};

/// Gathers weighted distances in units of delta E.
class DistanceSums {
 public:
  void add(double distance, double weight = 1) {
    weight_ += weight;
    sum_ += weight * distance;
    squares_ += weight * distance * distance;
    const auto step = static_cast<std::size_t>(std::min(distance / kStep, kLastStep));
    if (step >= weights_.size()) weights_.resize(step + 1);
    weights_[step] += weight;
  }

  /// All 0 when nothing was added.
  DistanceSummary summary() const {
    if (weight_ <= 0) return {};
    double below = 0;
    std::size_t step = 0;
    while (step < weights_.size() && (below += weights_[step]) < 0.95 * weight_) ++step;
    return {sum_ / weight_, std::sqrt(squares_ / weight_), kStep * static_cast<double>(step + 1)};
  }

 private:
  static constexpr double kStep = 0.01;
  static constexpr double kLastStep = 20000;  // what lies beyond is counted there

  double weight_ = 0, sum_ = 0, squares_ = 0;
  std::vector<double> weights_;  // of each step, as far as there were any
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PALETTE_DISTANCE_SUMS_H_
