#include "core/pixel/row_parts.h"

#include <catch2/catch.hpp>
#include <vector>

using namespace chalcedony;

TEST_CASE("the parts of a Block are its pixels, row by row", "[core][pixel]") {
  for (const std::uint32_t width : {1u, 7u, 100u})
    for (const std::uint64_t first_pixel : {0u, 5u, 99u}) {
      Block block;
      block.picture_width = width;
      block.first_pixel = first_pixel;
      block.size = 40;
      std::size_t next = 0;
      for_each_row_part(block,
                        [&](std::size_t first, std::size_t n, std::uint32_t x, std::uint32_t y) {
                          REQUIRE(first == next);
                          REQUIRE(n > 0);
                          for (std::size_t i = first; i < first + n; ++i) {
                            REQUIRE(block.x(i) == x + (i - first));
                            REQUIRE(block.y(i) == y);
                          }
                          next = first + n;
                        });
      CHECK(next == block.size);
    }
}
