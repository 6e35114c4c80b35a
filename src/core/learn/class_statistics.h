// What the sample pixels of a class say: count, mean, spread, range and covariance of its features.
#ifndef CHALCEDONY_CORE_LEARN_CLASS_STATISTICS_H_
#define CHALCEDONY_CORE_LEARN_CLASS_STATISTICS_H_

#include <Eigen/Core>
#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/cluster/point_moments.h"

namespace chalcedony {

struct ClassStatistics {
  std::uint64_t count = 0;
  Eigen::VectorXd mean;
  Eigen::MatrixXd covariance;  // divided by n - 1; zero for a single pixel
  Eigen::VectorXd smallest;
  Eigen::VectorXd largest;
};

/// Sums for one class. Add pixels and bands in picture order and the result is the same for any
/// number of threads.
class ClassSums {
 public:
  explicit ClassSums(std::size_t features);

  /// Adds a pixel whose features are all numbers, or as many like it.
  void add(const double* features, double pixels = 1);
  /// Adds many pixels, weighted by how many are alike.
  void add(const PointMoments& points);
  ClassSums& operator+=(const ClassSums& later);

  bool empty() const { return pixels_ <= 0; }
  /// Not when nothing was added.
  ClassStatistics statistics() const;

 private:
  std::size_t features_;
  double pixels_ = 0;
  std::vector<double> sum_, smallest_, largest_;
  std::vector<double> products_;  // row by row, the upper triangle
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_CLASS_STATISTICS_H_
