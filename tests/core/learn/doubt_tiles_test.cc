#include "core/learn/doubt_tiles.h"

#include <algorithm>
#include <array>
#include <catch2/catch.hpp>
#include <limits>
#include <vector>

using namespace chalcedony;

namespace {

/// Pixels with made-up verdicts: doubtful ones by each of the three reasons in turn.
struct MadeUpMap {
  std::uint32_t width, height;
  std::vector<std::uint8_t> counted;
  Verdicts verdicts;
  std::array<std::vector<float>, 3> srgb;

  MadeUpMap(std::uint32_t wide, std::uint32_t high)
      : width(wide), height(high), counted(pixels(), 1), verdicts(pixels()) {
    for (auto& plane : srgb) plane.resize(pixels());
    for (std::size_t p = 0; p < pixels(); ++p) {
      counted[p] = p % 11 != 0;
      verdicts.labels[p] = p % 7 == 0 ? Label{0} : static_cast<Label>(1 + p % 5);
      verdicts.far[p] = p % 13 == 0;
      verdicts.confidence[p] = static_cast<float>(p % 100) / 99;
      for (std::size_t c = 0; c < 3; ++c) srgb[c][p] = static_cast<float>((p * (c + 3)) % 256);
    }
  }

  std::size_t pixels() const { return std::size_t{width} * height; }
  bool doubtful(std::size_t p) const {
    return verdicts.labels[p] == 0 || verdicts.far[p] == 1 || verdicts.confidence[p] < 0.5f;
  }
  /// In Blocks of a size that rows do not end with.
  void add_to(DoubtTiles& tiles, std::size_t from, std::size_t end, std::size_t step) const {
    for (std::size_t at = from; at < end; at += step) {
      Block block;
      block.picture_width = width;
      block.first_pixel = at;
      block.size = std::min(step, end - at);
      block.counted = counted.data() + at;
      Verdicts found(block.size);
      for (std::size_t i = 0; i < block.size; ++i) {
        found.labels[i] = verdicts.labels[at + i];
        found.far[i] = verdicts.far[at + i];
        found.confidence[i] = verdicts.confidence[at + i];
      }
      tiles.add(block, found, {srgb[0].data() + at, srgb[1].data() + at, srgb[2].data() + at});
    }
  }
};

}  // namespace

TEST_CASE("doubtful pixels are counted by squares, in parts of any size", "[core][learn]") {
  const MadeUpMap map(190, 101);
  DoubtTiles tiles(map.width, map.height), rest(map.width, map.height);
  map.add_to(tiles, 0, 7000, 333);
  map.add_to(rest, 7000, map.pixels(), 1024);
  tiles.merge(rest);
  const std::uint32_t side = tiles.side();
  REQUIRE(side == 4);  // 19,190 pixels in at most 2,048 squares
  REQUIRE(tiles.columns() == 47);
  REQUIRE(tiles.tiles().size() == 47 * 25);
  std::uint64_t all = 0;
  std::vector<DoubtTile> plain(tiles.tiles().size());
  for (std::size_t p = 0; p < map.pixels(); ++p) {
    if (map.counted[p] == 0) continue;
    all += map.doubtful(p);
    const std::size_t x = p % map.width, y = p / map.width;
    if (x >= 47 * 4 || y >= 25 * 4) continue;
    DoubtTile& tile = plain[y / 4 * 47 + x / 4];
    ++tile.pixels;
    tile.doubtful += map.doubtful(p);
    for (std::size_t c = 0; c < 3; ++c) {
      const std::uint64_t code = (p * (c + 3)) % 256;
      tile.srgb[c] += code;
      tile.squares += code * code;
    }
    tile.lowest = std::min(tile.lowest, map.verdicts.labels[p]);
    tile.highest = std::max(tile.highest, map.verdicts.labels[p]);
    if (x % 4 == 2 && y % 4 == 2) tile.middle = map.verdicts.labels[p];
  }
  CHECK(tiles.doubtful() == all);
  bool same = true;
  for (std::size_t t = 0; t < plain.size(); ++t) {
    const DoubtTile &a = tiles.tiles()[t], &b = plain[t];
    same = same && a.pixels == b.pixels && a.doubtful == b.doubtful && a.srgb == b.srgb &&
           a.squares == b.squares && a.lowest == b.lowest && a.highest == b.highest &&
           a.middle == b.middle;
  }
  CHECK(same);
}

TEST_CASE("squares tell how much their pixels differ", "[core][learn]") {
  DoubtTile tile;
  tile.pixels = 4;
  tile.srgb = {40, 0, 8};
  tile.squares = 4 * 100 + 4 * 4;  // 10, 0, 2 four times
  CHECK(tile.variance() == Approx(0).margin(1e-12));
  tile.squares += 6 * 6;
  CHECK(tile.variance() == Approx(9));
  tile.lowest = 1;
  tile.highest = 2;
  CHECK_FALSE(tile.has_one_class());
  tile.lowest = 2;
  CHECK(tile.has_one_class());
}

TEST_CASE("there are few squares of any picture, and one of the smallest", "[core][learn]") {
  for (const auto& [width, height] :
       {std::pair{6000u, 4000u}, {100000u, 3u}, {1u, 1u}, {3u, 700u}, {65u, 65u}}) {
    CAPTURE(width, height);
    const DoubtTiles tiles(width, height);
    CHECK(tiles.tiles().size() >= 1);
    CHECK(tiles.side() <= std::min(width, height));
    if (std::min(width, height) > 100) CHECK(tiles.tiles().size() <= DoubtTiles::kMost);
  }
}

TEST_CASE("colors beyond their range and none at all are kept within it", "[core][learn]") {
  DoubtTiles tiles(2, 1);
  Block block;
  block.picture_width = 2;
  block.size = 2;
  Verdicts verdicts(2);
  const std::array<float, 2> r{-20, 400}, g{std::numeric_limits<float>::quiet_NaN(), 254.6f};
  tiles.add(block, verdicts, {r.data(), g.data(), r.data()});
  REQUIRE(tiles.tiles().size() == 2);
  CHECK(tiles.tiles()[0].srgb == std::array<std::uint64_t, 3>{0, 0, 0});
  CHECK(tiles.tiles()[1].srgb == std::array<std::uint64_t, 3>{255, 255, 255});
}
