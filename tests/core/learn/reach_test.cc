// Within which distances shares of the pixels of classes lie.
#include "core/learn/reach.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <cstdint>
#include <random>
#include <utility>
#include <vector>

using namespace chalcedony;

namespace {

using Reach = std::vector<double>;

struct FarPoints {
  std::vector<float> distances;
  std::vector<std::uint8_t> class_of;
  std::vector<double> pixels;

  std::vector<Reach> reaches(std::size_t classes) const {
    return reaches_of({distances, class_of, pixels}, classes);
  }
};

/// By sorting, pixel by pixel.
Reach plain_reach(const FarPoints& points, std::uint8_t one) {
  std::vector<float> sorted;
  for (std::size_t i = 0; i < points.distances.size(); ++i)
    if (points.class_of[i] == one)
      sorted.insert(sorted.end(), static_cast<std::size_t>(points.pixels[i]), points.distances[i]);
  std::sort(sorted.begin(), sorted.end());
  Reach reach;
  for (const double percent : kReachPercents) {
    const auto rank = std::ceil(static_cast<double>(sorted.size()) * percent / 100);
    reach.push_back(static_cast<double>(sorted[static_cast<std::size_t>(std::max(rank, 1.0)) - 1]));
  }
  return reach;
}

}  // namespace

TEST_CASE("a class reaches as far as shares of its pixels lie, by nearest rank", "[core][learn]") {
  CHECK(FarPoints{{1, 0, 7}, {1, 1, 1}, {2, 2, 1}}.reaches(1) ==
        std::vector<Reach>{{7, 7, 7, 7, 7}});
  CHECK(FarPoints{{2, 1, 3, 9}, {1, 1, 1, 1}, {1, 94, 4, 1}}.reaches(1) ==
        std::vector<Reach>{{1, 2, 3, 9, 9}});
  // Two classes, one without pixels, and a point of none.
  CHECK(FarPoints{{5, 4, 99, 6}, {1, 3, 0, 3}, {1, 1, 1, 1}}.reaches(3) ==
        std::vector<Reach>{{5, 5, 5, 5, 5}, {0, 0, 0, 0, 0}, {6, 6, 6, 6, 6}});
  CHECK(FarPoints{{0, 0}, {1, 1}, {3, 4}}.reaches(1) == std::vector<Reach>{{0, 0, 0, 0, 0}});
}

TEST_CASE("the reach of random classes is what sorting says", "[core][learn]") {
  std::mt19937 random(7);
  std::exponential_distribution<float> far(2);
  for (const float scale : {1e-9f, 1e-4f, 1.0f, 1e5f}) {
    FarPoints points;
    for (int i = 0; i < 5000; ++i) {
      points.distances.push_back(i % 97 == 0 ? 0 : scale * far(random));
      points.class_of.push_back(static_cast<std::uint8_t>(random() % 5));
      points.pixels.push_back(static_cast<double>(1 + random() % 9));
    }
    const std::vector<Reach> reaches = points.reaches(4);
    REQUIRE(reaches.size() == 4);
    for (std::uint8_t c = 1; c <= 4; ++c) CHECK(reaches[c - 1u] == plain_reach(points, c));
  }
}
