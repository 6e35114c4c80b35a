// Nearness to gray, held against looking at the pixels one by one.
#include "core/channel/near_gray.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "tests/support/instruction_sets.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

/// Grays, and colors up to 12 of 255 away from them.
PlaneBuffer grayish(std::size_t n) {
  std::mt19937 random(5);
  PlaneBuffer rgb(3);
  for (std::size_t i = 0; i < n; ++i)
    for (std::size_t c = 0; c < 3; ++c)
      rgb.plane(c)[i] = static_cast<float>(100 + (i % 3 == 0 ? 0 : random() % 13));
  return rgb;
}

double farness(const ConstPlanes& rgb, std::size_t i) {
  const auto [least, most] = std::minmax({rgb[0][i], rgb[1][i], rgb[2][i]});
  return static_cast<double>(most - least);
}

}  // namespace

TEST_CASE("pixels near gray are counted by their weights, and lose their hue", "[core][color]") {
  for (const std::size_t n : {1u, 15u, 16u, 17u, 1000u}) {
    PlaneBuffer buffer = grayish(n);
    const ConstPlanes rgb = read_only(buffer.planes());
    std::vector<std::uint8_t> counted(n);
    std::vector<std::uint32_t> weights(n);
    for (std::size_t i = 0; i < n; ++i) {
      counted[i] = i % 4 != 1;
      weights[i] = static_cast<std::uint32_t>(i % 5);
    }
    std::uint64_t all = 0, of_counted = 0, weighted = 0;
    for (std::size_t i = 0; i < n; ++i) {
      if (farness(rgb, i) >= 6) continue;
      ++all;
      of_counted += counted[i];
      weighted += weights[i];
    }
    for_each_instruction_set([&](const char* name) {
      INFO(n << " pixels, " << name);
      Block block;
      block.size = n;
      CHECK(count_near_gray(rgb, 6, block) == all);
      block.counted = counted.data();
      CHECK(count_near_gray(rgb, 6, block) == of_counted);
      block.counted = nullptr;
      block.weights = weights.data();
      CHECK(count_near_gray(rgb, 6, block) == weighted);
      PlaneBuffer hues(2);
      std::fill_n(hues.plane(0), n, 200.0f);
      blank_hues(rgb, hues.plane(0), 6, n, hues.plane(1));
      std::size_t wrong = 0;
      for (std::size_t i = 0; i < n; ++i) {
        const bool blank = farness(rgb, i) <= 6;
        wrong += blank ? !std::isnan(hues.plane(1)[i]) : hues.plane(1)[i] != 200.0f;
      }
      CHECK(wrong == 0);
    });
  }
}
