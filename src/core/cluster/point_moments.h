// Sums, products and ranges of the points of each label.
#ifndef CHALCEDONY_CORE_CLUSTER_POINT_MOMENTS_H_
#define CHALCEDONY_CORE_CLUSTER_POINT_MOMENTS_H_

#include <cstddef>
#include <cstdint>
#include <limits>
#include <vector>

#include "core/cluster/points.h"

namespace chalcedony {

struct PointMoments {
  double weight = 0;
  std::vector<double> sum;       // of weight times feature
  std::vector<double> products;  // the same of two features: row by row, the upper triangle
  std::vector<float> smallest, largest;

  explicit PointMoments(std::size_t dimensions)
      : sum(dimensions),
        products(dimensions * (dimensions + 1) / 2),
        smallest(dimensions, std::numeric_limits<float>::infinity()),
        largest(dimensions, -std::numeric_limits<float>::infinity()) {}
};

/// Adds the points from `begin` to `end` to the moments of their labels. Quick where neighbors have
/// few labels; every instruction set gives the same bits.
///
/// Shape     `labels` holds one for each point of the set, from 1 on; `moments` those of each
void add_moments_by_label(const Points& points, const std::uint8_t* labels, std::size_t begin,
                          std::size_t end, std::vector<PointMoments>& moments);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CLUSTER_POINT_MOMENTS_H_
