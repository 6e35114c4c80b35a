// Points that are gathered, left out and divided.
#include "core/cluster/point_set.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <cstdint>
#include <limits>
#include <vector>

#include "core/planes.h"

using namespace chalcedony;

namespace {

constexpr float kNoNumber = std::numeric_limits<float>::quiet_NaN();

}  // namespace

TEST_CASE("points are set in stretches and added one by one", "[core][cluster]") {
  PointSet points(2);
  const float single[]{9, 8};
  points.append(single, 0.5);
  points.grow(5);
  // From the end on, as threads may.
  const std::vector<float> late_x{4, 5}, late_y{-4, -5}, early_x{1, 2, 3}, early_y{-1, -2, -3};
  const std::vector<std::uint64_t> late_pixels{40, std::uint64_t{1} << 40};
  const std::vector<std::uint32_t> early_pixels{10, 20, 30};
  points.set(4, 2, {late_x.data(), late_y.data()}, late_pixels.data());
  points.set(1, 3, {early_x.data(), early_y.data()}, early_pixels.data());
  points.pad();
  const Points all = points.first_features(2);
  REQUIRE(all.size == 6);
  CHECK(std::equal(all.weights, all.weights + 6,
                   std::vector<double>{0.5, 10, 20, 30, 40, 1099511627776}.begin()));
  CHECK(std::equal(all.features[0], all.features[0] + 6,
                   std::vector<float>{9, 1, 2, 3, 4, 5}.begin()));
  CHECK(std::equal(all.features[1], all.features[1] + 6,
                   std::vector<float>{8, -1, -2, -3, -4, -5}.begin()));
  CHECK(points.plane(0).size() == 6 + kPlanePadding);
  CHECK(points.first_features(1).dimensions() == 1);
}

TEST_CASE("points without a number for a feature go, and say what they weighed",
          "[core][cluster]") {
  PointSet points(2);
  const std::vector<std::vector<float>> given{
      {kNoNumber, 1}, {1, 2}, {2, kNoNumber}, {kNoNumber, kNoNumber}, {3, 4}};
  double weight = 1;
  for (const auto& point : given) points.append(point.data(), weight *= 2);
  CHECK(points.remove_incomplete(1) == 8 + 16);  // the first one lies before
  REQUIRE(points.size() == 3);
  points.multiply(1, 0.5f);
  const Points left = points.first_features(2);
  CHECK(std::isnan(left.features[0][0]));
  CHECK(std::vector<double>(left.weights, left.weights + 3) == std::vector<double>{2, 4, 32});
  CHECK(left.features[0][1] == 1);
  CHECK(left.features[0][2] == 3);
  CHECK(left.features[1][1] == 1);
  CHECK(left.features[1][2] == 2);
}
