// All points around their common mean.
#ifndef CHALCEDONY_CORE_CLUSTER_SCATTER_H_
#define CHALCEDONY_CORE_CLUSTER_SCATTER_H_

#include <cmath>
#include <vector>

#include "core/cluster/points.h"

namespace chalcedony {

struct Scatter {
  std::vector<double> mean;
  double sum_of_squares = 0;  // weighted squared distances to the mean: what one group leaves
  double weight = 0;

  /// The standard deviation over all features.
  double deviation() const { return std::sqrt(sum_of_squares / weight); }
};

/// Of at least one point.
Scatter scatter_of(const Points& points);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CLUSTER_SCATTER_H_
