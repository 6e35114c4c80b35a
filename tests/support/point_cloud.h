// Points that own their numbers.
#ifndef CHALCEDONY_TESTS_SUPPORT_POINT_CLOUD_H_
#define CHALCEDONY_TESTS_SUPPORT_POINT_CLOUD_H_

#include <vector>

#include "core/cluster/points.h"

namespace chalcedony::test {

struct PointCloud {
  std::vector<std::vector<float>> features;
  std::vector<double> weights;

  /// Good as long as the cloud.
  Points view() const {
    Points points{weights.size(), {}, weights.data()};
    for (const auto& feature : features) points.features.push_back(feature.data());
    return points;
  }
};

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_SUPPORT_POINT_CLOUD_H_
