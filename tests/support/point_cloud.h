// Points that own their numbers.
#ifndef CHALCEDONY_TESTS_SUPPORT_POINT_CLOUD_H_
#define CHALCEDONY_TESTS_SUPPORT_POINT_CLOUD_H_

#include <cstddef>
#include <cstdint>
#include <random>
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

/// Random points with labels from `first` on, so many, which mostly stay for some points.
struct LabeledCloud {
  PointCloud cloud;
  std::vector<std::uint8_t> label_of;

  LabeledCloud(unsigned seed, std::size_t points, std::size_t dimensions, unsigned labels,
               std::uint8_t first) {
    std::mt19937 random(seed);
    std::uniform_real_distribution<float> value(-3, 5);
    cloud.features.resize(dimensions);
    std::uint8_t label = first;
    for (std::size_t i = 0; i < points; ++i) {
      for (auto& feature : cloud.features) feature.push_back(value(random));
      cloud.weights.push_back(static_cast<double>(1 + random() % 9));
      if (random() % 10 == 0) label = static_cast<std::uint8_t>(first + random() % labels);
      label_of.push_back(label);
    }
  }
};

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_SUPPORT_POINT_CLOUD_H_
