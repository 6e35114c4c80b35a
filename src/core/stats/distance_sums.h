// Statistics of color differences.
#ifndef CHALCEDONY_CORE_STATS_DISTANCE_SUMS_H_
#define CHALCEDONY_CORE_STATS_DISTANCE_SUMS_H_

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

/// Gathers weighted distances. Add them in one order and the result is the same.
class DistanceSums {
 public:
  /// `steps`: how many a unit has, to which quantiles are told; the default is for delta E.
  explicit DistanceSums(double steps = 100) : steps_(steps) {}

  void add(double distance, double weight = 1);
  /// Adds n distances of weight 1, or of these weights above 0; those that are not a number are
  /// left out.
  void add(const float* distances, std::size_t n, const double* weights = nullptr);
  /// Adds what was gathered with the same steps.
  DistanceSums& operator+=(const DistanceSums& other);

  double weight() const { return weight_; }
  /// All 0 when nothing was added.
  DistanceSummary summary() const;

 private:
  /// A run of at most kBlockPixels, a multiple of 8.
  void add_run(const float* distances, std::size_t n, const double* weights);
  /// The weight of the distance's step; makes room for it and those below.
  double& weight_of(double distance);
  double quantile(double share) const;

  double steps_;
  double weight_ = 0, sum_ = 0, squares_ = 0, largest_ = 0;
  std::vector<double> weights_;  // of each step, as far as there were any
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_STATS_DISTANCE_SUMS_H_
