#include "core/stats/distinct_rows.h"

#include <algorithm>
#include <array>
#include <catch2/catch.hpp>
#include <map>
#include <random>

using namespace chalcedony;

TEST_CASE("rows that are alike are one, numbered as they come", "[stats]") {
  std::mt19937 random(7);
  DistinctRows rows(3);
  std::map<std::array<std::uint32_t, 3>, std::uint32_t> plain;
  for (int i = 0; i < 20000; ++i) {
    // Few values, some of which differ in their high bits alone.
    const auto below = [&](std::uint32_t n) { return static_cast<std::uint32_t>(random() % n); };
    const std::array<std::uint32_t, 3> row{below(40) << 26, below(9), below(30) << 10};
    const std::uint32_t number =
        plain.try_emplace(row, static_cast<std::uint32_t>(plain.size())).first->second;
    REQUIRE(rows.add(row.data()) == number);
  }
  REQUIRE(rows.size() == plain.size());
  REQUIRE(rows.size() > 4000);
  for (const auto& [row, number] : plain)
    CHECK(std::equal(row.begin(), row.end(), rows.row(number)));
}
