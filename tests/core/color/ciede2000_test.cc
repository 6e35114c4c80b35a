#include "core/color/ciede2000.h"

#include <catch2/catch.hpp>

#include "tests/support/tables.h"

using namespace chalcedony;

TEST_CASE("ciede2000 gives the 34 published pairs to 4 decimals, both ways",
          "[core][color][ciede2000]") {
  const auto rows = test::table("ciede2000-pairs.csv");
  REQUIRE(rows.size() == 34);
  for (const auto& row : rows) {
    std::array<double, 7> v{};
    for (std::size_t i = 0; i < 7; ++i) v[i] = std::stod(row[i]);
    INFO(row[0] << " " << row[1] << " " << row[2] << " against " << row[3] << " " << row[4]);
    CHECK(ciede2000({v[0], v[1], v[2]}, {v[3], v[4], v[5]}) == Approx(v[6]).margin(5.01e-5));
    CHECK(ciede2000({v[3], v[4], v[5]}, {v[0], v[1], v[2]}) == Approx(v[6]).margin(5.01e-5));
  }
}

TEST_CASE("ciede2000 of a color with itself is 0", "[core][color][ciede2000]") {
  CHECK(ciede2000({50, 0, 0}, {50, 0, 0}) == 0);
  CHECK(ciede2000({20, 30, -70}, {20, 30, -70}) == 0);
}
