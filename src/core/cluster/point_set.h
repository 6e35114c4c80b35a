// Points that own their numbers.
#ifndef CHALCEDONY_CORE_CLUSTER_POINT_SET_H_
#define CHALCEDONY_CORE_CLUSTER_POINT_SET_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/cluster/points.h"
#include "core/pixel/large_vector.h"

namespace chalcedony {

/// Weighted points of some features, to be gathered and then viewed as Points.
class PointSet {
 public:
  explicit PointSet(std::size_t features);
  ~PointSet();
  PointSet(const PointSet&) = delete;
  PointSet& operator=(const PointSet&) = delete;

  std::size_t size() const { return weights_.size(); }

  /// Makes room for n more points at the end, whose numbers are left to be set.
  void grow(std::size_t n);

  /// Sets n points from `first` on, each with an array of `values` for every feature. May be called
  /// for several stretches at once.
  template <class Weight>
  void set(std::size_t first, std::size_t n, const std::vector<const float*>& values,
           const Weight* weights);

  /// One more point.
  void append(const float* values, double weight);

  /// Takes away the points from `first` on of which some feature is not a number, and returns what
  /// they weighed.
  double remove_incomplete(std::size_t first);

  void multiply(std::size_t feature, float factor);

  /// Fills the arrays up as planes are: to be called once, after the last point.
  void pad();

  const LargeVector<float>& plane(std::size_t feature) const { return planes_[feature]; }
  const double* weights() const { return weights_.data(); }

  /// The points with their first features. The view lasts until a point is added or taken away.
  Points first_features(std::size_t count) const;

 private:
  std::vector<LargeVector<float>> planes_;
  LargeVector<double> weights_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CLUSTER_POINT_SET_H_
