// The cube against counting by hand and a plain second way.
#include "core/stats/cube.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <map>
#include <random>

using namespace chalcedony;

namespace {

Block block_of(std::size_t size) {
  Block block;
  block.picture_width = 64;
  block.size = block.counted_size = size;
  return block;
}

std::vector<const float*> values_of(const PlaneBuffer& planes) {
  return {planes.plane(0), planes.plane(1), planes.plane(2)};
}

}  // namespace

TEST_CASE("a cube counts three channels together, ends included", "[core][stats]") {
  CubeHistogram cube(channels_of(spaces::kSrgb), 2);
  PlaneBuffer planes;
  const float rgb[4][3] = {{0, 0, 0}, {127, 128, 255}, {300, -5, 127.9f}, {128, 0, 0}};
  for (std::size_t i = 0; i < 4; ++i)
    for (std::size_t c = 0; c < 3; ++c) planes.plane(c)[i] = rgb[i][c];
  cube.add(block_of(4), values_of(planes));
  // 128 begins the upper half of 0-256; what lies past an end is in the bin at that end.
  CHECK(cube.counts() == std::vector<std::uint64_t>{1, 0, 0, 1, 2, 0, 0, 0});
  CHECK(cube.total() == 4);

  CubeHistogram hues(channels_of(spaces::kHsv), 3);
  planes.plane(0)[1] = std::nanf("");
  hues.add(block_of(2), values_of(planes));
  CHECK(hues.no_hue() == 1);
  CHECK(hues.total() == 2);
}

TEST_CASE("a cube agrees with a plain count, weights and left-out pixels too", "[core][stats]") {
  std::mt19937 random(4);
  std::uniform_real_distribution<float> l(0, 1), ab(-0.4f, 0.4f);
  PlaneBuffer planes;
  constexpr std::size_t n = 1001;
  std::vector<std::uint32_t> weights(n);
  std::vector<std::uint8_t> counted(n);
  std::map<std::array<int, 3>, std::uint64_t> plain;
  for (std::size_t i = 0; i < n; ++i) {
    planes.plane(0)[i] = l(random);
    planes.plane(1)[i] = ab(random);
    planes.plane(2)[i] = ab(random);
    weights[i] = random() % 5;
    counted[i] = random() % 4 != 0;
    const auto bin = [](double v, double low, double high) {
      return std::min(5, static_cast<int>(std::floor((v - low) / (high - low) * 6)));
    };
    if (counted[i])
      plain[{bin(planes.plane(0)[i], 0, 1), bin(planes.plane(1)[i], -0.4, 0.4),
             bin(planes.plane(2)[i], -0.4, 0.4)}] += weights[i];
  }
  Block block = block_of(n);
  block.weights = weights.data();
  block.counted = counted.data();
  CubeHistogram first(channels_of(spaces::kOklab), 6), second(channels_of(spaces::kOklab), 6);
  first.add(block, values_of(planes));
  second.add(block, values_of(planes));
  first.merge(second);
  bool same = true;
  for (int a = 0; a < 6; ++a)
    for (int b = 0; b < 6; ++b)
      for (int c = 0; c < 6; ++c)
        same &=
            first.counts()[static_cast<std::size_t>(36 * a + 6 * b + c)] == 2 * plain[{a, b, c}];
  CHECK(same);
}

TEST_CASE("one or two channels make a line or a square", "[core][stats]") {
  PlaneBuffer planes;
  const float values[3][2] = {{10, 90}, {95, 5}, {100, 100}};
  for (std::size_t i = 0; i < 3; ++i)
    for (std::size_t c = 0; c < 2; ++c) planes.plane(c)[i] = values[i][c];
  CubeHistogram square(channels_named("hsv.s,hsv.v"), 2), line(channels_named("hsv.v"), 4);
  square.add(block_of(3), {planes.plane(0), planes.plane(1)});
  line.add(block_of(3), {planes.plane(1)});
  CHECK(square.counts() == std::vector<std::uint64_t>{0, 1, 1, 1});
  CHECK(line.counts() == std::vector<std::uint64_t>{1, 0, 0, 2});
}
