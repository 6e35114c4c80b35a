// Centers of groups.
#ifndef CHALCEDONY_CORE_CLUSTER_CENTERS_H_
#define CHALCEDONY_CORE_CLUSTER_CENTERS_H_

#include <cstddef>
#include <vector>

namespace chalcedony {

/// k centers, one after the other, in the features' units.
using Centers = std::vector<double>;

/// Of two places.
inline double squared_distance(const double* a, const double* b, std::size_t dimensions) {
  double sum = 0;
  for (std::size_t f = 0; f < dimensions; ++f) sum += (a[f] - b[f]) * (a[f] - b[f]);
  return sum;
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CLUSTER_CENTERS_H_
