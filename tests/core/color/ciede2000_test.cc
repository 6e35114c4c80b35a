#include "core/color/ciede2000.h"

#include <catch2/catch.hpp>
#include <random>

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

TEST_CASE("many colors against one differ as one by one", "[core][color][ciede2000]") {
  std::mt19937 random(6);
  std::uniform_real_distribution<float> lightness(0, 100), axis(-110, 110);
  PlaneBuffer planes(4);
  constexpr std::size_t n = 1003;
  for (const std::array<double, 3>& lab : {std::array<double, 3>{50, 20, -60},
                                           {30, 0, 0},
                                           {80, -40, 1e-3},
                                           {60, 60, -0.5},
                                           {0, 0, 0}}) {
    for (std::size_t i = 0; i < n; ++i) {
      planes.plane(0)[i] = lightness(random);
      planes.plane(1)[i] = i % 10 == 0 ? 0 : axis(random);
      planes.plane(2)[i] = i % 20 == 0 ? 0 : axis(random);
    }
    // Close to the color itself, too.
    for (std::size_t i = 1; i < n; i += 7)
      for (std::size_t c = 0; c < 3; ++c)
        planes.plane(c)[i] = static_cast<float>(lab[c]) + axis(random) / 1000;
    ciede2000_to(lab, read_only(planes.planes()), n, planes.plane(3));
    for (std::size_t i = 0; i < n; ++i) {
      const double one = ciede2000(
          lab, {static_cast<double>(planes.plane(0)[i]), static_cast<double>(planes.plane(1)[i]),
                static_cast<double>(planes.plane(2)[i])});
      CHECK(static_cast<double>(planes.plane(3)[i]) == Approx(one).epsilon(1e-5).margin(1e-3));
    }
  }
}

TEST_CASE("pairs of colors differ as one by one", "[core][color][ciede2000]") {
  std::mt19937 random(7);
  std::uniform_real_distribution<float> lightness(0, 100), axis(-110, 110);
  PlaneBuffer planes(7);
  constexpr std::size_t n = 1003;
  for (std::size_t i = 0; i < n; ++i)
    for (std::size_t c = 0; c < 6; ++c)
      planes.plane(c)[i] = c % 3 == 0 ? lightness(random) : axis(random);
  ciede2000_between(read_only(planes.planes()), read_only(planes.planes(3)), n, planes.plane(6));
  const auto color = [&](std::size_t first, std::size_t i) {
    return std::array<double, 3>{static_cast<double>(planes.plane(first)[i]),
                                 static_cast<double>(planes.plane(first + 1)[i]),
                                 static_cast<double>(planes.plane(first + 2)[i])};
  };
  for (std::size_t i = 0; i < n; ++i)
    CHECK(static_cast<double>(planes.plane(6)[i]) ==
          Approx(ciede2000(color(0, i), color(3, i))).margin(1e-3).epsilon(1e-5));
}

TEST_CASE("differences up to a limit are those without one", "[core][color][ciede2000]") {
  std::mt19937 random(11);
  std::uniform_real_distribution<float> lightness(0, 100), axis(-120, 120);
  PlaneBuffer planes(5);
  constexpr std::size_t n = 1003;
  std::size_t left_out = 0;
  // Blues too, where chroma and hue are tied together.
  for (const std::array<double, 3> lab :
       {std::array<double, 3>{50, 30, 20}, {30, 20, -80}, {70, 0, 0}, {40, 60, -95}}) {
    for (std::size_t i = 0; i < n; ++i) {
      // Runs of like colors, as pictures have them, so that whole vectors are left out.
      if (i % 16 == 0) {
        planes.plane(0)[i] = lightness(random);
        planes.plane(1)[i] = axis(random);
        planes.plane(2)[i] = axis(random);
      } else {
        for (std::size_t c = 0; c < 3; ++c)
          planes.plane(c)[i] = planes.plane(c)[i - 1] + axis(random) / 60;
      }
    }
    const ConstPlanes labs = read_only(planes.planes());
    ciede2000_to(lab, labs, n, planes.plane(3));
    for (const double limit : {0.0, 2.0, 12.0, 40.0}) {
      ciede2000_within(lab, labs, n, limit, planes.plane(4));
      for (std::size_t i = 0; i < n; ++i) {
        const float all = planes.plane(3)[i], some = planes.plane(4)[i];
        if (some == all) continue;
        ++left_out;
        REQUIRE(std::isinf(some));
        REQUIRE(static_cast<double>(all) > limit);
      }
    }
  }
  CHECK(left_out > n);
}
