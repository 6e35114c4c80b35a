// Sums over points that come one after the other.
#ifndef CHALCEDONY_CORE_CLUSTER_POINT_SUMS_H_
#define CHALCEDONY_CORE_CLUSTER_POINT_SUMS_H_

#include <cstddef>

#include "core/cluster/points.h"

namespace chalcedony {

/// Adds the features of the points from `begin` to `end`, times their weights, and the weights.
///
/// Shape     `to`: one number a dimension, and one more
void add_weighted(const Points& points, std::size_t begin, std::size_t end, double* to);

/// The sum of the squared distances from the points from `begin` to `end` to a center, times their
/// weights.
double weighted_squares(const Points& points, std::size_t begin, std::size_t end,
                        const double* center);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CLUSTER_POINT_SUMS_H_
