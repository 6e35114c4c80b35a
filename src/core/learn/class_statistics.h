// What the sample pixels of a class say: count, mean, spread, range and covariance of its features.
#ifndef CHALCEDONY_CORE_LEARN_CLASS_STATISTICS_H_
#define CHALCEDONY_CORE_LEARN_CLASS_STATISTICS_H_

#include <Eigen/Core>
#include <cstdint>
#include <vector>

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

  /// Adds a pixel whose features are all numbers, or `count` like it.
  void add(const double* features, std::uint64_t count = 1);
  ClassSums& operator+=(const ClassSums& later);

  std::uint64_t count() const { return count_; }
  ClassStatistics statistics() const;

 private:
  std::size_t features_;
  std::uint64_t count_ = 0;
  std::vector<double> sum_, smallest_, largest_;
  std::vector<double> products_;  // row by row, the upper triangle
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_CLASS_STATISTICS_H_
