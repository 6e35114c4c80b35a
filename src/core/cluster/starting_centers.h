// Centers to begin with, drawn from the points that are to be grouped.
#ifndef CHALCEDONY_CORE_CLUSTER_STARTING_CENTERS_H_
#define CHALCEDONY_CORE_CLUSTER_STARTING_CENTERS_H_

#include <tbb/parallel_for.h>
#include <tbb/task_arena.h>

#include <cstddef>
#include <cstdint>

#include "core/cluster/centers.h"
#include "core/cluster/drawn_points.h"
#include "core/cluster/points.h"

namespace chalcedony {

enum class CenterStart { kSpread, kRandom };

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

/// Calls work(start) for start = 0 to count - 1, several at once. Each is isolated: a thread that
/// waits for a part of one does not begin another meanwhile, which would hold the memory of both.
template <class Work>
void for_each_start(std::size_t count, const Work& work) {
  tbb::parallel_for(
      std::size_t{0}, count,
      [&](std::size_t start) { tbb::this_task_arena::isolate([&] { work(start); }); },
      tbb::simple_partitioner());
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CLUSTER_STARTING_CENTERS_H_
