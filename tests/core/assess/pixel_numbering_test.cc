#include "core/assess/pixel_numbering.h"

#include <catch2/catch.hpp>
#include <cstddef>
#include <cstdint>
#include <vector>

using namespace chalcedony;

TEST_CASE("pixels are numbered through several pictures", "[core][assess]") {
  PixelNumbering numbering;
  numbering.add(4, 3);
  numbering.add(1, 1);
  numbering.add(5, 2);
  CHECK(numbering.first_of(0) == 0);
  CHECK(numbering.first_of(2) == 13);
  const auto at = [&](std::uint64_t number) {
    const auto [picture, x, y] = numbering.place_of(number);
    return std::vector<std::size_t>{picture, x, y};
  };
  CHECK(at(0) == std::vector<std::size_t>{0, 0, 0});
  CHECK(at(11) == std::vector<std::size_t>{0, 3, 2});
  CHECK(at(12) == std::vector<std::size_t>{1, 0, 0});
  CHECK(at(13) == std::vector<std::size_t>{2, 0, 0});
  CHECK(at(22) == std::vector<std::size_t>{2, 4, 1});
}
