// Sums over points that come one after the other.
#ifndef CHALCEDONY_CORE_CLUSTER_POINT_SUMS_H_
#define CHALCEDONY_CORE_CLUSTER_POINT_SUMS_H_

#include <cstddef>
#include <cstdint>

#include "core/cluster/points.h"

namespace chalcedony {

/// Adds the features of the points from `begin` to `end`, times their weights, and the weights.
///
/// Shape     `to`: one number a dimension, and one more
void add_weighted(const Points& points, std::size_t begin, std::size_t end, double* to);

/// The same by the labels of the points: `labels` holds one for each point of the set. Quick where
/// neighbors have few labels.
///
/// Shape     `to`: as many numbers as for add_weighted() for each label, 0 first
void add_weighted_by_label(const Points& points, const std::uint8_t* labels, std::size_t begin,
                           std::size_t end, double* to);

/// The sum of the squared distances from the points from `begin` to `end` to a center, times their
/// weights.
double weighted_squares(const Points& points, std::size_t begin, std::size_t end,
                        const double* center);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CLUSTER_POINT_SUMS_H_
