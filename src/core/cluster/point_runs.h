// Points in short runs. When points are in the order of their colors, neighbors are alike, so that
// most runs lie near one center as a whole and need not be looked at point by point.
#ifndef CHALCEDONY_CORE_CLUSTER_POINT_RUNS_H_
#define CHALCEDONY_CORE_CLUSTER_POINT_RUNS_H_

#include <cstddef>
#include <vector>

#include "core/cluster/points.h"

namespace chalcedony {

/// Points of a run; the last one may have fewer. A part of a chunk.
inline constexpr std::size_t kRunPoints = 64;
static_assert(kPointChunk % kRunPoints == 0);

/// Where the points of each run lie, and their sums.
class PointRuns {
 public:
  explicit PointRuns(const Points& points);

  std::size_t size() const { return radii_.size(); }
  /// The middle of the box around a run's points.
  const double* middle(std::size_t run) const { return middles_.data() + run * dimensions_; }
  /// No point of the run is farther from the middle.
  double radius(std::size_t run) const { return radii_[run]; }
  /// What add_weighted() (point_sums.h) says of the run.
  const double* sums(std::size_t run) const { return sums_.data() + run * (dimensions_ + 1); }

 private:
  std::size_t dimensions_;
  std::vector<double> middles_, radii_, sums_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CLUSTER_POINT_RUNS_H_
