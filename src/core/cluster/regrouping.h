// Groups of drawn points, and the way out of groupings that no movement makes better.
#ifndef CHALCEDONY_CORE_CLUSTER_REGROUPING_H_
#define CHALCEDONY_CORE_CLUSTER_REGROUPING_H_

#include <cstdint>

#include "core/cluster/center_mover.h"
#include "core/cluster/centers.h"
#include "core/cluster/drawn_points.h"

namespace chalcedony {

/// Centers that were moved through drawn points.
struct DrawnGroups {
  Centers centers;
  double sum_of_squares = 0;  // of the drawn points
  Movement movement;
};

/// When centers are to rest.
struct MovementLimit {
  unsigned most_iterations = 0;
  double least = 0;  // no center moves more than this
};

/// Moves centers through the drawn points.
DrawnGroups move_through_drawn(const DrawnPoints& points, Centers start,
                               const MovementLimit& limit);

/// At least two groups with a center more where points are far from all, and one less where two
/// are cheapest to join, as long as that leaves less: `from` when it never does. Some ways are
/// tried at once, and the best is taken.
///
/// Source    the cost of joining two groups: Ward (1963)
DrawnGroups regrouped(const DrawnPoints& points, const DrawnGroups& from,
                      const MovementLimit& limit, std::uint64_t seed);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CLUSTER_REGROUPING_H_
