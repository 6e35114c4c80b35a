#include "core/pixel/code_dither.h"

#include <catch2/catch.hpp>
#include <cmath>

using namespace chalcedony;

TEST_CASE("dithering keeps means and stays within half a code", "[core][pixel]") {
  // The channels of Lab in 16 bits and in 8 differ in what a code is.
  const SampleScale fine{0.5, 0}, coarse{4, -10};
  const CodeDither dither(7, {fine, coarse, fine});
  PlaneBuffer color, again;
  double sum = 0;
  constexpr int kRounds = 50;
  for (int round = 0; round < kRounds; ++round) {
    Block block;
    block.first_pixel = static_cast<std::uint64_t>(round) * kBlockPixels;
    block.size = kBlockPixels;
    for (std::size_t i = 0; i < kBlockPixels; ++i)
      for (std::size_t c = 0; c < 3; ++c) color.plane(c)[i] = again.plane(c)[i] = 31;
    dither.add(block, color.planes());
    for (std::size_t i = 0; i < kBlockPixels; ++i) {
      REQUIRE(std::abs(color.plane(0)[i] - 31) <= 0.25f);
      REQUIRE(std::abs(color.plane(1)[i] - 31) <= 2.0f);
      sum += std::round((static_cast<double>(color.plane(1)[i]) + 10) / 4);
    }
    // What a pixel gets does not hang on the Block it is in.
    Block part = block;
    part.first_pixel += 100;
    part.size = 10;
    dither.add(part, {again.plane(0) + 100, again.plane(1) + 100, again.plane(2) + 100});
    for (std::size_t c = 0; c < 3; ++c) REQUIRE(again.plane(c)[105] == color.plane(c)[105]);
  }
  // 41 of 4 units a code is code 10.25, which rounding alone never shows.
  CHECK(sum / (kRounds * static_cast<double>(kBlockPixels)) == Approx(10.25).margin(0.01));
}
