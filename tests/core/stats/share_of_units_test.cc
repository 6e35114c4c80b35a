// How far a share over units can be trusted, against plain formulas and by trial.
#include "core/stats/share_of_units.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "core/stats/normal_distribution.h"
#include "core/stats/proportion.h"
#include "core/stats/student_distribution.h"

using namespace chalcedony;

TEST_CASE("Student's t has the values of the printed tables", "[core][stats]") {
  CHECK(student_t(0.95, 1) == Approx(12.706).margin(5e-4));
  CHECK(student_t(0.95, 2) == Approx(4.303).margin(5e-4));
  CHECK(student_t(0.95, 10) == Approx(2.228).margin(5e-4));
  CHECK(student_t(0.99, 5) == Approx(4.032).margin(5e-4));
  CHECK(student_t(0.90, 30) == Approx(1.697).margin(5e-4));
  CHECK(student_t(0.95, 1e7) == Approx(normal_z(0.95)).margin(1e-5));
}

TEST_CASE("units that differ make the interval of their share", "[core][stats]") {
  // By hand: 160 of 200 right; residuals 10, 0 and -10.
  const auto found = share_of_units({{90, 100}, {40, 50}, {0, 0}, {30, 50}}, 0.95);
  REQUIRE(found);
  CHECK(found->units == 3);
  CHECK(found->share == Approx(0.8));
  CHECK(found->standard_error == Approx(std::sqrt(1.5 * 200) / 200));
  CHECK(found->interval.low == Approx(0.8 - 4.30265 * found->standard_error).margin(1e-5));
  CHECK(found->interval.high == 1);
  CHECK_FALSE(share_of_units({}, 0.95));
  CHECK_FALSE(share_of_units({{5, 9}, {0, 0}}, 0.95));
  CHECK_FALSE(share_of_units({{5, 10}, {50, 100}}, 0.95));
  CHECK_FALSE(share_of_units({{1, 3}, {7, 21}, {100, 300}}, 0.95));
}

TEST_CASE("of units of one size it is the interval of the mean of their shares", "[core][stats]") {
  std::mt19937 random(4);
  std::vector<UnitPart> units;
  double sum = 0, squares = 0;
  for (int i = 0; i < 9; ++i) {
    units.push_back({500 + random() % 500, 1000});
    const double share = static_cast<double>(units.back().part) / 1000;
    sum += share;
    squares += share * share;
  }
  const double mean = sum / 9, variance = (squares - 9 * mean * mean) / 8;
  const auto found = share_of_units(units, 0.9);
  CHECK(found->share == Approx(mean));
  CHECK(found->standard_error == Approx(std::sqrt(variance / 9)));
  CHECK(found->interval.high - found->share == Approx(student_t(0.9, 8) * found->standard_error));
}

TEST_CASE("the interval between units holds the truth as often as it says", "[core][stats]") {
  // Units whose own shares spread about 0.8; what a size of 400 to 1200 draws from each.
  std::mt19937 random(11);
  std::normal_distribution<double> spread(0.8, 0.06);
  int held = 0, held_as_if_apart = 0;
  constexpr int kTrials = 600;
  for (int trial = 0; trial < kTrials; ++trial) {
    std::vector<UnitPart> units;
    std::uint64_t right = 0, all = 0;
    for (int m = 0; m < 15; ++m) {
      const std::uint64_t size = 400 + random() % 800;
      std::binomial_distribution<std::uint64_t> draw(size, std::clamp(spread(random), 0.0, 1.0));
      units.push_back({draw(random), size});
      right += units.back().part;
      all += size;
    }
    const Interval between = share_of_units(units, 0.95)->interval;
    const Interval apart = *wilson_interval(right, all, 0.95);
    held += between.low <= 0.8 && 0.8 <= between.high;
    held_as_if_apart += apart.low <= 0.8 && 0.8 <= apart.high;
  }
  CHECK(held > 0.92 * kTrials);
  CHECK(held < 0.98 * kTrials);
  CHECK(held_as_if_apart < 0.6 * kTrials);
}

TEST_CASE("how much more second units have is told by how much that differs", "[core][stats]") {
  // By hand: 5, -1 and 2 more of 100, 100 and 50: 6 of 250; residuals 2.6, -3.4 and 0.8.
  const std::vector<UnitPart> first{{80, 100}, {91, 100}, {40, 50}};
  const auto gain = gain_of_units(first, {{85, 100}, {90, 100}, {42, 50}}, 0.95);
  REQUIRE(gain);
  CHECK(gain->share == Approx(6.0 / 250));
  CHECK(gain->standard_error == Approx(std::sqrt(1.5 * (2.6 * 2.6 + 3.4 * 3.4 + 0.8 * 0.8)) / 250));
  CHECK(gain->interval.low < 0);
  CHECK(gain->interval.high > gain->share);
  const auto back = gain_of_units({{85, 100}, {90, 100}, {42, 50}}, first, 0.95);
  CHECK(back->interval.high == Approx(-gain->interval.low));
  CHECK_FALSE(gain_of_units({{1, 2}}, {{2, 2}}, 0.95));
}
