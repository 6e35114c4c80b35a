// Moments of points by their labels, held against adding one point after the other.
#include "core/cluster/point_moments.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cstdint>
#include <string>
#include <vector>

#include "core/learn/class_statistics.h"
#include "tests/support/instruction_sets.h"
#include "tests/support/point_cloud.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

bool same_bits(const PointMoments& a, const PointMoments& b) {
  return a.weight == b.weight && a.sum == b.sum && a.products == b.products &&
         a.smallest == b.smallest && a.largest == b.largest;
}

bool alike(const Eigen::MatrixXd& a, const Eigen::MatrixXd& b) {
  return (a - b).cwiseAbs().maxCoeff() <= 1e-10 * std::max(1.0, b.cwiseAbs().maxCoeff());
}

}  // namespace

TEST_CASE("moments by label are those of adding each point to its label", "[core][cluster]") {
  for (const std::size_t dimensions : {1u, 3u, 5u})
    for (const unsigned labels : {1u, 4u, 255u}) {
      INFO(dimensions << " dimensions, " << labels << " labels");
      const LabeledCloud labeled(6, 3000, dimensions, labels, 1);
      const PointCloud& cloud = labeled.cloud;
      const std::vector<std::uint8_t>& label_of = labeled.label_of;
      const std::size_t begin = 5, end = 2971;  // no whole blocks
      std::vector<ClassSums> plain(labels, ClassSums(dimensions));
      for (std::size_t i = begin; i < end; ++i) {
        std::vector<double> point;
        for (const auto& feature : cloud.features) point.push_back(static_cast<double>(feature[i]));
        plain[label_of[i] - 1u].add(point.data(), cloud.weights[i]);
      }
      std::vector<std::vector<PointMoments>> found;
      for_each_instruction_set([&](const std::string&) {
        auto& moments = found.emplace_back(labels, PointMoments(dimensions));
        add_moments_by_label(cloud.view(), label_of.data(), begin, end, moments);
      });
      for (const auto& moments : found)
        for (std::size_t c = 0; c < labels; ++c) {
          REQUIRE(same_bits(moments[c], found.front()[c]));
          ClassSums sums(dimensions);
          sums.add(moments[c]);
          REQUIRE(sums.empty() == plain[c].empty());
          if (sums.empty()) continue;
          const ClassStatistics its = sums.statistics(), those = plain[c].statistics();
          REQUIRE(its.count == those.count);
          REQUIRE(its.smallest == those.smallest);
          REQUIRE(its.largest == those.largest);
          REQUIRE(alike(its.mean, those.mean));
          REQUIRE(alike(its.covariance, those.covariance));
        }
    }
}
