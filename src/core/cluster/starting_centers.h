// Centers to begin with, drawn from the points that are to be grouped.
#ifndef CHALCEDONY_CORE_CLUSTER_STARTING_CENTERS_H_
#define CHALCEDONY_CORE_CLUSTER_STARTING_CENTERS_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/cluster/points.h"

namespace chalcedony {

enum class CenterStart { kSpread, kRandom };

/// k centers, one after the other, in the features' units.
using Centers = std::vector<double>;

/// Starting centers: the first a point drawn by weight. kSpread draws each further one with a
/// chance in proportion to weight and squared distance to the nearest center so far, the best of
/// some such draws; kRandom draws all by weight alone. Only drawn points take part,
/// unless they have too few colors.
///
/// Errors    InputError when there are fewer than k points that differ
/// Source    k-means++ (Arthur and Vassilvitskii 2007), with the several draws of their section 5
Centers starting_centers(const DrawnPoints& points, std::size_t k, CenterStart start,
                         std::uint64_t seed);

/// The same centers and one more, drawn as kSpread draws.
///
/// Errors    as starting_centers
Centers with_one_more(const Points& points, Centers centers, std::uint64_t seed);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CLUSTER_STARTING_CENTERS_H_
