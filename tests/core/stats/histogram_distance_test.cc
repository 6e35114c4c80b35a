#include "core/stats/histogram_distance.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "core/stats/transport.h"

using namespace chalcedony;

namespace {

Bins random_bins(std::size_t count, unsigned seed) {
  std::mt19937 random(seed);
  Bins bins(count);
  for (double& bin : bins) bin = random() % 5 == 0 ? 0 : static_cast<double>(random() % 100);
  bins[0] = 1;
  return bins;
}

}  // namespace

TEST_CASE("distances are 0 for the same shares and 1 for nothing in common",
          "[core][stats][distance]") {
  const Bins a{1, 2, 0, 1}, twice{2, 4, 0, 2}, other{0, 0, 5, 0};
  for (const auto distance : {overlap_distance, jensen_shannon_distance, hellinger_distance}) {
    CHECK(distance(a, twice) == Approx(0).margin(1e-7));
    CHECK(distance(a, other) == Approx(1));
    CHECK(distance(random_bins(20, 1), random_bins(20, 2)) ==
          Approx(distance(random_bins(20, 2), random_bins(20, 1))));
  }
}

TEST_CASE("distances of two bins are what a hand finds", "[core][stats][distance]") {
  const Bins a{3, 1}, b{1, 1};
  CHECK(overlap_distance(a, b) == Approx(0.25));
  CHECK(hellinger_distance(a, b) == Approx(std::sqrt(1 - std::sqrt(0.375) - std::sqrt(0.125))));
  const double divergence =
      0.5 * (0.75 * std::log2(0.75 / 0.625) + 0.25 * std::log2(0.25 / 0.375)) +
      0.5 * (0.5 * std::log2(0.5 / 0.625) + 0.5 * std::log2(0.5 / 0.375));
  CHECK(jensen_shannon_distance(a, b) == Approx(std::sqrt(divergence)));
  CHECK(transport_on_line(a, b) == Approx(0.25));
}

TEST_CASE("transport on a line and on a circle is the cheapest there is",
          "[core][stats][distance]") {
  for (unsigned seed = 1; seed <= 15; ++seed) {
    const std::size_t n = 5 + seed;
    const Bins a = random_bins(n, seed), b = random_bins(n, 50 + seed);
    std::vector<double> line, circle;
    for (std::size_t i = 0; i < n; ++i)
      for (std::size_t j = 0; j < n; ++j) {
        const double step = std::abs(static_cast<double>(i) - static_cast<double>(j));
        line.push_back(step);
        circle.push_back(std::min(step, static_cast<double>(n) - step));
      }
    CHECK(transport_on_line(a, b) == Approx(cheapest_transport(a, b, line).cost).margin(1e-9));
    CHECK(transport_on_circle(a, b) == Approx(cheapest_transport(a, b, circle).cost).margin(1e-9));
  }
  CHECK(transport_on_circle({1, 0, 0, 0, 0, 0}, {0, 0, 0, 0, 0, 1}) == Approx(1));
  CHECK(transport_on_line({1, 0, 0, 0, 0, 0}, {0, 0, 0, 0, 0, 1}) == Approx(5));
}

TEST_CASE("transport in a cube is that on a line for one axis, and goes straight for more",
          "[core][stats][distance]") {
  for (unsigned seed = 1; seed <= 5; ++seed) {
    const Bins a = random_bins(9, seed), b = random_bins(9, 20 + seed);
    CHECK(transport_in_cube(a, b, 9, {false}) == Approx(transport_on_line(a, b) / 9).margin(1e-9));
    CHECK(transport_in_cube(a, b, 9, {true}) == Approx(transport_on_circle(a, b) / 9).margin(1e-9));
  }
  // From one corner of a 4 x 4 square to the other, and round the first axis.
  Bins first(16), second(16);
  first[0] = 2;
  second[15] = 5;
  CHECK(transport_in_cube(first, second, 4, {false, false}) == Approx(0.75 * std::sqrt(2.0)));
  CHECK(transport_in_cube(first, second, 4, {true, false}) == Approx(std::hypot(0.25, 0.75)));
}
