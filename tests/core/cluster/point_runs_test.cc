// Runs of points, held against looking at each point; and points drawn from many chunks.
#include "core/cluster/point_runs.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "tests/support/instruction_sets.h"
#include "tests/support/point_cloud.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

PointCloud random_cloud(std::size_t points, std::size_t dimensions) {
  std::mt19937 random(7);
  std::uniform_real_distribution<float> value(-3, 5);
  PointCloud cloud;
  cloud.features.resize(dimensions);
  for (std::size_t i = 0; i < points; ++i) {
    for (auto& feature : cloud.features) feature.push_back(value(random));
    cloud.weights.push_back(static_cast<double>(1 + random() % 9));
  }
  return cloud;
}

}  // namespace

TEST_CASE("a run lies in its ball, and its sums are those of its points", "[core][cluster]") {
  for (const std::size_t dimensions : {1u, 3u, 4u}) {
    const PointCloud cloud = random_cloud(150, dimensions);  // two whole runs, and 22 points
    const Points points = cloud.view();
    for_each_instruction_set([&](const char* name) {
      INFO(dimensions << " dimensions, " << name);
      const PointRuns runs(points);
      REQUIRE(runs.size() == 3);
      for (std::size_t run = 0; run < 3; ++run) {
        const std::size_t begin = run * kRunPoints, end = std::min(points.size, begin + kRunPoints);
        double farthest = 0;
        std::vector<double> sums(dimensions + 1);
        for (std::size_t i = begin; i < end; ++i) {
          double square = 0;
          for (std::size_t f = 0; f < dimensions; ++f) {
            const double at = static_cast<double>(points.features[f][i]);
            square += std::pow(at - runs.middle(run)[f], 2);
            sums[f] += points.weights[i] * at;
          }
          sums[dimensions] += points.weights[i];
          farthest = std::max(farthest, std::sqrt(square));
        }
        CHECK(runs.radius(run) == Approx(farthest).epsilon(1e-12));
        for (std::size_t s = 0; s <= dimensions; ++s)
          CHECK(runs.sums(run)[s] == Approx(sums[s]).epsilon(1e-12));
        // Of one dimension the box is the ball.
        if (dimensions > 1) continue;
        const auto& own = cloud.features[0];
        const auto first = own.begin() + static_cast<std::ptrdiff_t>(begin);
        const auto [low, high] =
            std::minmax_element(first, own.begin() + static_cast<std::ptrdiff_t>(end));
        CHECK(runs.radius(run) == Approx((*high - *low) / 2).epsilon(1e-6));
      }
    });
  }
}

TEST_CASE("points are drawn from many chunks as from one", "[core][cluster]") {
  const PointCloud cloud = random_cloud(3 * kPointChunk + 100, 1);
  const Points points = cloud.view();
  for (const std::size_t count : {1u, 7u, 5000u, 40000u}) {
    INFO(count << " of " << points.size);
    const std::vector<std::size_t> drawn = even_draw(points, count, 11);
    REQUIRE(drawn.size() == count);
    // Pixels from one draw to the next are as many each time: a point is drawn when one of its
    // pixels is hit.
    double all = 0;
    for (const double weight : cloud.weights) all += weight;
    const double step = all / static_cast<double>(count);
    std::vector<double> before{0};
    for (const double weight : cloud.weights) before.push_back(before.back() + weight);
    const double low = before[drawn[0]], high = before[drawn[0] + 1];
    std::size_t wrong = 0;
    for (std::size_t d = 0; d < count; ++d) {
      const double first = low + static_cast<double>(d) * step, last = first + high - low;
      wrong += before[drawn[d]] <= last && before[drawn[d] + 1] >= first ? 0 : 1;
    }
    CHECK(wrong == 0);
    CHECK(std::is_sorted(drawn.begin(), drawn.end()));
  }
}
