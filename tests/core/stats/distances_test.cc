// Statistics of distances and of what differs between pictures.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "core/stats/difference_tally.h"
#include "core/stats/distance_sums.h"
#include "tests/support/instruction_sets.h"

using namespace chalcedony;

namespace {

constexpr float kNoDistance = std::numeric_limits<float>::quiet_NaN();

/// Distances up to 50, with holes.
std::vector<float> some_distances(std::size_t n) {
  std::mt19937 random(4);
  std::uniform_real_distribution<float> distance(0, 50);
  std::vector<float> out(n);
  for (float& d : out) d = random() % 7 == 0 ? kNoDistance : distance(random);
  return out;
}

/// Of every instruction set: alike to the bit, and but for rounding what is wanted.
void check_all_are(const std::vector<DistanceSummary>& found, const DistanceSummary& wanted) {
  for (const DistanceSummary& s : found) {
    CHECK(s.mean == Approx(wanted.mean).epsilon(1e-12));
    CHECK(s.root_mean_square == Approx(wanted.root_mean_square).epsilon(1e-12));
    CHECK(s.median == wanted.median);
    CHECK(s.percentile_95 == wanted.percentile_95);
    CHECK(s.largest == wanted.largest);
    CHECK(s.mean == found.front().mean);
  }
}

}  // namespace

TEST_CASE("statistics of distances are those of a sorted list", "[core][stats]") {
  DistanceSums sums;
  CHECK(sums.summary().mean == 0);
  for (int i = 1; i <= 100; ++i) sums.add(i);
  CHECK(sums.summary().mean == Approx(50.5));
  CHECK(sums.summary().root_mean_square == Approx(std::sqrt(3383.5)));
  CHECK(sums.summary().percentile_95 == Approx(95).margin(0.011));

  // In parts, of which one reaches farther and one is empty.
  DistanceSums near, far, none;
  for (int i = 1; i <= 100; ++i) (i <= 30 ? near : far).add(i);
  near += none;
  near += far;
  CHECK(near.summary().mean == Approx(50.5));
  CHECK(near.summary().root_mean_square == Approx(std::sqrt(3383.5)));
  CHECK(near.summary().median == sums.summary().median);
  CHECK(near.summary().percentile_95 == sums.summary().percentile_95);
  CHECK(near.summary().largest == 100);
}

TEST_CASE("many distances at once are those one by one", "[core][stats]") {
  for (const std::size_t n : {0u, 1u, 8u, 13u, 1024u, 3001u}) {
    const std::vector<float> distances = some_distances(n);
    DistanceSums one_by_one;
    for (const float d : distances)
      if (!std::isnan(d)) one_by_one.add(static_cast<double>(d));
    std::vector<DistanceSummary> found;
    test::for_each_instruction_set([&](const std::string&) {
      DistanceSums sums;
      sums.add(distances.data(), n);
      CHECK(sums.weight() == one_by_one.weight());
      found.push_back(sums.summary());
    });
    check_all_are(found, one_by_one.summary());
  }
}

TEST_CASE("weights of distances count as so many of them", "[core][stats]") {
  for (const std::size_t n : {5u, 1024u, 2051u}) {
    const std::vector<float> distances = some_distances(n);
    std::vector<double> weights;
    DistanceSums one_by_one;
    for (std::size_t i = 0; i < n; ++i) {
      weights.push_back(static_cast<double>(1 + i % 4));
      for (std::size_t times = 0; times < 1 + i % 4 && !std::isnan(distances[i]); ++times)
        one_by_one.add(static_cast<double>(distances[i]));
    }
    std::vector<DistanceSummary> found;
    test::for_each_instruction_set([&](const std::string&) {
      DistanceSums sums;
      sums.add(distances.data(), n, weights.data());
      CHECK(sums.weight() == one_by_one.weight());
      found.push_back(sums.summary());
    });
    check_all_are(found, one_by_one.summary());
  }
}

TEST_CASE("far distances share a step and keep their size", "[core][stats]") {
  const std::vector<float> distances(16, 1e6f);
  DistanceSums sums;
  sums.add(distances.data(), distances.size());
  CHECK(sums.summary().largest == 1e6);
  CHECK(sums.summary().mean == 1e6);
}

TEST_CASE("what differs is counted, and the first of the largest found", "[core][stats]") {
  std::vector<float> differences = some_distances(2500);
  differences[1700] = differences[2100] = 60;
  // A tolerance that no float is.
  const double tolerance = 0.1;
  differences[3] = 0.1f;  // just above it
  differences[4] = std::nextafter(0.1f, 0.0f);
  std::uint64_t above = 0, counted = 0;
  for (const float d : differences) {
    counted += !std::isnan(d);
    above += static_cast<double>(d) > tolerance;
  }
  DifferenceTally tally(100, tolerance), later(100, tolerance);
  tally.add(differences.data(), 1000, 500);
  later.add(differences.data() + 1000, 1500, 1500);
  tally += later;
  CHECK(tally.counted() == counted);
  CHECK(tally.above() == above);
  CHECK(tally.largest_pixel() == 500 + 1700);
  CHECK(tally.summary().largest == 60);

  DifferenceTally same(100, 0);
  const std::vector<float> zeros(20, 0.0f);
  same.add(zeros.data(), zeros.size(), 40);
  CHECK(same.counted() == 20);
  CHECK(same.above() == 0);
  CHECK(same.largest_pixel() == 40);
}

TEST_CASE("pixels that count in one picture alone do not differ", "[core][stats]") {
  const std::vector<std::uint8_t> counted{1, 0, 1, 1}, counted_too{1, 1, 0, 1};
  Block first, second, all;
  first.size = second.size = all.size = 4;
  first.counted = counted.data();
  second.counted = counted_too.data();
  std::vector<float> differences{1, 2, 3, std::numeric_limits<float>::infinity()};
  leave_out_uncounted(first, second, differences.data());
  CHECK(differences[0] == 1);
  for (const std::size_t i : {1u, 2u, 3u}) CHECK(std::isnan(differences[i]));
  std::vector<float> kept{0, 1, 2, 3};
  leave_out_uncounted(all, all, kept.data());
  CHECK(kept == std::vector<float>{0, 1, 2, 3});
}

TEST_CASE("differences are shown as grays up to a most", "[core][stats]") {
  const std::vector<float> differences{0, 3, 12, 40, kNoDistance};
  std::vector<float> gray(differences.size());
  differences_as_gray(differences.data(), differences.size(), 12, gray.data());
  CHECK(gray == std::vector<float>{0, 63.75f, 255, 255, 0});
}
