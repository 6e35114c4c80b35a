// What judges a grouping: silhouette, knee and lone pixels, on small cases worked out by hand.
#include <array>
#include <catch2/catch.hpp>
#include <cstdlib>
#include <random>

#include "core/cluster/knee.h"
#include "core/cluster/lone_pixels.h"
#include "core/cluster/points.h"
#include "core/cluster/silhouette.h"
#include "tests/support/instruction_sets.h"

using namespace chalcedony;
using chalcedony::test::for_each_instruction_set;

TEST_CASE("silhouette of five points on a line", "[core][cluster]") {
  // Groups {0, 1}, {10, 12}, {30}: a and b of each point by hand.
  const Silhouette silhouette({0, 1, 10, 12, 30}, 1);
  CHECK(silhouette.points() == 5);
  const double expected =
      ((11.0 - 1) / 11 + (10.0 - 1) / 10 + (9.5 - 2) / 9.5 + (11.5 - 2) / 11.5 + 0) / 5;
  CHECK(silhouette.mean({1, 1, 2, 2, 3}) == Approx(expected));
  CHECK(silhouette.mean({1, 1, 1, 1, 1}) == 0);
  CHECK(silhouette.mean({1, 2, 1, 2, 1}) < 0);
}

TEST_CASE("the knee is where a falling curve bends", "[core][cluster]") {
  CHECK(knee({100, 40, 12, 10, 8, 7}) == 2);
  CHECK(knee({10, 9, 8, 7}) == 0);
  CHECK(knee({10, 1}) == 0);
  CHECK(knee({1, 5, 9}) == 0);
}

TEST_CASE("lone pixels are unlike all eight neighbors", "[core][cluster]") {
  const std::vector<std::uint8_t> labels{1, 1, 2, 1,  //
                                         1, 1, 1, 3,  //
                                         0, 4, 1, 3,  //
                                         4, 0, 0, 0};
  LonePixels lone(4);
  lone.add_rows(labels.data(), 1);
  lone.add_rows(labels.data() + 4, 3);
  // The 2 alone: the 4s touch at a corner, 0 does not count.
  CHECK(lone.finish() == 1);

  const auto count_plain = [](const std::vector<std::uint8_t>& map, int w, int h) {
    std::uint64_t count = 0;
    for (int y = 0; y < h; ++y)
      for (int x = 0; x < w; ++x) {
        const auto at = [&](int u, int v) {
          return u < 0 || v < 0 || u >= w || v >= h ? 0 : map[static_cast<std::size_t>(v * w + u)];
        };
        bool alone = at(x, y) != 0;
        for (int v = y - 1; v <= y + 1; ++v)
          for (int u = x - 1; u <= x + 1; ++u)
            if ((u != x || v != y) && at(u, v) == at(x, y)) alone = false;
        count += alone;
      }
    return count;
  };
  std::mt19937 random(8);
  for (const int width : {1, 2, 31, 32, 33, 100}) {
    std::vector<std::uint8_t> map(static_cast<std::size_t>(width) * 23);
    for (auto& label : map) label = static_cast<std::uint8_t>(random() % 9);
    for_each_instruction_set([&](const char* name) {
      INFO(width << " wide, " << name);
      LonePixels ours(static_cast<std::uint32_t>(width));
      ours.add_rows(map.data(), 23);
      CHECK(ours.finish() == count_plain(map, width, 23));
    });
  }
}

TEST_CASE("points are drawn by their weights at even steps", "[core][cluster]") {
  const std::vector<float> values{0, 1, 2, 3};
  const std::vector<double> weights{1, 7, 0.5, 1.5};
  const Points points{4, {values.data()}, weights.data()};
  const auto drawn = even_draw(points, 1000, 5);
  REQUIRE(drawn.size() == 1000);
  std::array<int, 4> times{};
  for (const std::size_t i : drawn) ++times[i];
  CHECK(std::abs(times[0] - 100) <= 1);
  CHECK(std::abs(times[1] - 700) <= 1);
  CHECK(std::abs(times[2] - 50) <= 1);
  CHECK(even_draw(points, 1000, 5) == drawn);
}
