// Unlike lines at the edges of pictures made by hand.
#include "core/stats/edge_lines.h"

#include <catch2/catch.hpp>
#include <functional>

using namespace chalcedony;

namespace {

using Value = std::function<float(std::uint32_t x, std::uint32_t y)>;

EdgeLines edges_of(std::uint32_t width, std::uint32_t height, const Value& value) {
  PlaneBuffer planes(1);
  LineSums sums(width, height);
  for (std::uint32_t y = 0; y < height; ++y) {
    Block block;
    block.picture_width = width;
    block.first_pixel = std::uint64_t{y} * width;
    block.size = width;
    for (std::uint32_t x = 0; x < width; ++x) planes.plane(0)[x] = value(x, y);
    LineSums row(width, height);
    row.add(block, {planes.plane(0), planes.plane(0), planes.plane(0)});
    sums += row;
  }
  return sums.edges(0.25);
}

}  // namespace

TEST_CASE("unlike lines at the edges are counted from outside", "[core][stats]") {
  const auto calm = [](std::uint32_t x, std::uint32_t y) {
    return static_cast<float>(100 + (x * 7 + y * 13) % 5);
  };
  const EdgeLines none = edges_of(60, 50, calm);
  CHECK(none.top + none.bottom + none.left + none.right == 0);
  const EdgeLines some = edges_of(60, 50, [&](std::uint32_t x, std::uint32_t y) {
    return x >= 57 || y < 8 ? 240.0f : calm(x, y);
  });
  CHECK(some.right == 3);
  CHECK(some.top == 8);
  CHECK(some.left == 0);
  CHECK(some.bottom == 0);
  // A side that goes on unlike for longer is a part of the picture.
  CHECK(edges_of(60, 50, [&](std::uint32_t x, std::uint32_t y) {
          return x < 9 ? 240.0f : calm(x, y);
        }).left == 0);
  // Too few lines to know what is usual.
  CHECK(edges_of(20, 50, [&](std::uint32_t x, std::uint32_t y) {
          return x < 2 ? 240.0f : calm(x, y);
        }).left == 0);
}
