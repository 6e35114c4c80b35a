#include "core/learn/sample_suggestion.h"

#include <algorithm>
#include <array>
#include <catch2/catch.hpp>
#include <functional>
#include <vector>

using namespace chalcedony;

namespace {

constexpr std::uint32_t kSide = 400;  // squares of 9 pixels

/// A picture whose pixel (x, y) has the color and, when it is doubtful, no confidence.
DoubtTiles tiles_of(const std::function<std::array<float, 3>(std::uint32_t, std::uint32_t)>& color,
                    const std::function<bool(std::uint32_t, std::uint32_t)>& doubtful) {
  DoubtTiles tiles(kSide, kSide);
  std::array<std::vector<float>, 3> srgb;
  for (auto& plane : srgb) plane.resize(kSide);
  for (std::uint32_t y = 0; y < kSide; ++y) {
    Verdicts verdicts(kSide);
    for (std::uint32_t x = 0; x < kSide; ++x) {
      verdicts.labels[x] = x < 200 ? 1 : 2;
      verdicts.confidence[x] = doubtful(x, y) ? 0.0f : 1.0f;
      for (std::size_t c = 0; c < 3; ++c) srgb[c][x] = color(x, y)[c];
    }
    Block block;
    block.picture_width = kSide;
    block.first_pixel = std::uint64_t{y} * kSide;
    block.size = kSide;
    tiles.add(block, verdicts, {srgb[0].data(), srgb[1].data(), srgb[2].data()});
  }
  return tiles;
}

/// Bands of 90 rows in four colors, the last one wider.
std::array<float, 3> banded(std::uint32_t, std::uint32_t y) {
  constexpr std::array<std::array<float, 3>, 4> kColors{
      {{200, 30, 40}, {30, 160, 60}, {40, 60, 190}, {230, 200, 60}}};
  return kColors[std::min(y / 90, 3u)];
}

}  // namespace

TEST_CASE("samples are suggested where they stand for most that is doubtful", "[core][learn]") {
  // All of the second color, and 90 and 27 columns of the first and the third.
  const DoubtTiles tiles = tiles_of(banded, [](std::uint32_t x, std::uint32_t y) {
    return y / 90 == 1 || (y / 90 == 0 && x >= 297) || (y / 90 == 2 && x < 27);
  });
  REQUIRE(tiles.side() == 9);
  const auto samples = suggested_samples(tiles, 10);
  REQUIRE(samples.size() == 3);
  CHECK(samples[0].doubtful == 90 * 396);  // what is left at the right belongs to no square
  CHECK(samples[1].doubtful == 90 * 99);
  CHECK(samples[2].doubtful == 90 * 27);
  // The middle of the first such square from the top left, with the class there.
  CHECK(samples[0].square.x == 2);
  CHECK(samples[0].square.y == 92);
  CHECK(samples[0].square.width == 5);
  CHECK(samples[0].guess == 1);
  CHECK(samples[1].square.x == 299);
  CHECK(samples[1].guess == 2);
  CHECK(suggested_samples(tiles, 2).size() == 2);
}

TEST_CASE("of squares alike one within a class is suggested, and an even one", "[core][learn]") {
  const auto doubtful = [](std::uint32_t, std::uint32_t y) { return y < 9; };
  // The classes meet at 200, in the square from 198 on; most grain is on the left.
  const auto grained = [](std::uint32_t from, std::uint32_t to) {
    return [=](std::uint32_t x, std::uint32_t y) {
      const float gray =
          x >= from && x < to && y < 9 ? 120.0f + 6 * static_cast<float>(x % 3) : 126;
      return std::array<float, 3>{gray, gray, gray};
    };
  };
  const auto all_but_edge = suggested_samples(tiles_of(grained(0, 180), doubtful), 1);
  REQUIRE(all_but_edge.size() == 1);
  CHECK(all_but_edge[0].square.x >= 180);
  const auto right_grained = suggested_samples(tiles_of(grained(207, 400), doubtful), 1);
  REQUIRE(right_grained.size() == 1);
  CHECK(right_grained[0].square.x < 198);
  // Where all else is grained, still not the even one on the edge.
  const auto even_edge =
      suggested_samples(tiles_of(
                            [&](std::uint32_t x, std::uint32_t y) {
                              return grained(x < 198 ? 0 : 207, x < 198 ? 198 : 400)(x, y);
                            },
                            doubtful),
                        1);
  REQUIRE(even_edge.size() == 1);
  CHECK(even_edge[0].square.x / 9 != 22);
}

TEST_CASE("nothing is suggested for edges and specks", "[core][learn]") {
  // A doubtful line of three pixels through all squares it meets.
  CHECK(suggested_samples(
            tiles_of(banded, [](std::uint32_t x, std::uint32_t) { return x >= 201 && x < 204; }), 5)
            .empty());
  // A single square of 81 pixels of 160,000.
  CHECK(suggested_samples(
            tiles_of(banded, [](std::uint32_t x, std::uint32_t y) { return x < 9 && y < 9; }), 5)
            .empty());
  CHECK(suggested_samples(tiles_of(banded, [](auto, auto) { return false; }), 5).empty());
}

TEST_CASE("what samples stand for is counted once", "[core][learn]") {
  // A ramp of grays, every square alike its neighbors only; all of it doubtful.
  const auto ramp = [](std::uint32_t x, std::uint32_t) {
    const float gray = static_cast<float>(x) * 255 / kSide;
    return std::array<float, 3>{gray, gray, gray};
  };
  const DoubtTiles tiles = tiles_of(ramp, [](auto, auto) { return true; });
  const auto samples = suggested_samples(tiles, 100);
  CHECK(samples.size() >= 8);  // 1 in oklab from black to white, 0.1 at most around each
  std::uint64_t stood_for = 0;
  for (std::size_t s = 0; s < samples.size(); ++s) {
    stood_for += samples[s].doubtful;
    if (s > 0) CHECK(samples[s].doubtful <= samples[s - 1].doubtful);
  }
  CHECK(stood_for == 396 * 396);
}
