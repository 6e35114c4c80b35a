#include "core/select/likeness.h"

#include <Eigen/LU>
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "core/stats/otsu.h"

using namespace chalcedony;

namespace {

SampleValues sample_bell(const std::vector<double>& means, double spread, std::size_t count,
                         unsigned seed) {
  std::mt19937 random(seed);
  std::normal_distribution<double> normal;
  SampleValues values(means.size());
  for (std::size_t i = 0; i < count; ++i)
    for (std::size_t c = 0; c < means.size(); ++c)
      values[c].push_back(static_cast<float>(means[c] + spread * normal(random)));
  return values;
}

}  // namespace

TEST_CASE("middle ranges hold what they are asked to hold", "[core][select][likeness]") {
  const auto channels = channels_named("gray");
  SampleValues like(1);
  for (int v = 0; v <= 200; ++v) like[0].push_back(static_cast<float>(v));
  const auto ranges = middle_ranges(channels, like, 90);
  CHECK(ranges[0].low == Approx(10).margin(0.11));
  CHECK(ranges[0].high == Approx(190).margin(0.11));
  CHECK(share_within(ranges, like) == Approx(181.0 / 201).margin(0.006));
  CHECK(middle_ranges(channels, like, 100)[0].low == 0);
  // One color has a little room around it: a fiftieth of 255.
  const auto one = middle_ranges(channels, {{100.0f}}, 98);
  CHECK(one[0].low == Approx(100 - 2.55).margin(0.11));
  CHECK(one[0].high == Approx(100 + 2.55).margin(0.11));
}

TEST_CASE("ranges of a hue run through red, and leave out pixels without hue",
          "[core][select][likeness]") {
  const auto channels = channels_named("hsv.h");
  SampleValues like(1);
  for (int degrees = -20; degrees <= 20; ++degrees)
    like[0].push_back(static_cast<float>((degrees + 360) % 360));
  like[0].push_back(std::nanf(""));
  const auto ranges = middle_ranges(channels, like, 100);
  CHECK(ranges[0].low == Approx(340));
  CHECK(ranges[0].high == Approx(20));
  CHECK(ranges[0].holds(350));
  CHECK(ranges[0].holds(0));
  CHECK_FALSE(ranges[0].holds(180));
  CHECK(share_within(ranges, like) == Approx(41.0 / 42));
}

TEST_CASE("unlike samples narrow the ranges where it pays", "[core][select][likeness]") {
  const auto channels = channels_named("lab");
  const SampleValues like = sample_bell({50, 20, 0}, 4, 600, 1),
                     unlike = sample_bell({62, 20, 0}, 4, 600, 2);
  auto ranges = middle_ranges(channels, like, 98);
  const auto wide = ranges;
  narrow_ranges(channels, like, unlike, ranges);
  CHECK(share_within(ranges, like) > 0.8);
  CHECK(share_within(ranges, unlike) < 0.12);
  CHECK(share_within(ranges, like) - share_within(ranges, unlike) >
        share_within(wide, like) - share_within(wide, unlike));
  // The channel that tells them apart is cut about half way, on that side only.
  CHECK(ranges[0].high == Approx(56).margin(1.5));
  CHECK(ranges[0].low == wide[0].low);
  auto kept = wide;
  narrow_ranges(channels, like, sample_bell({50, -90, 0}, 1, 100, 3), kept);
  CHECK(kept[0].high == wide[0].high);
}

TEST_CASE("an ellipsoid holds its coverage of a Gaussian", "[core][select][likeness]") {
  const auto channels = channels_named("lab");
  const SampleValues like = sample_bell({40, -10, 30}, 5, 20000, 4);
  for (const double coverage : {50.0, 90.0, 99.0}) {
    const LikeEllipsoid e = gaussian_likeness(channels, like, coverage);
    CHECK(100 * share_within(e, like) == Approx(coverage).margin(1));
    CHECK(e.mean[2] == Approx(30).margin(0.2));
  }
  // 7.815 is what a chi-squared number with three degrees of freedom exceeds in 5 % of cases.
  CHECK(gaussian_likeness(channels, like, 95).limit == Approx(7.815).margin(0.001));
  CHECK(share_within(gaussian_likeness(channels, {{5}, {5}, {5}}, 95), {{5, 9}, {5, 5}, {5, 5}}) ==
        0.5);
}

TEST_CASE("Otsu's threshold is the best of all thresholds", "[core][stats][otsu]") {
  std::mt19937 random(5);
  for (int turn = 0; turn < 20; ++turn) {
    std::vector<std::uint64_t> counts(40);
    for (auto& count : counts) count = random() % 50;
    double all = 0, sum = 0, squares = 0;
    for (std::size_t b = 0; b < 40; ++b) {
      all += static_cast<double>(counts[b]);
      sum += static_cast<double>(b * counts[b]);
      squares += static_cast<double>(b * b * counts[b]);
    }
    const double variance = squares / all - sum / all * sum / all;
    double best = 0;
    std::size_t best_at = 0;
    for (std::size_t t = 1; t < 40; ++t) {
      double n = 0, s = 0;
      for (std::size_t b = 0; b < t; ++b) {
        n += static_cast<double>(counts[b]);
        s += static_cast<double>(b * counts[b]);
      }
      if (n == 0 || n == all) continue;
      const double between = n / all * std::pow(s / n - sum / all, 2) +
                             (1 - n / all) * std::pow((sum - s) / (all - n) - sum / all, 2);
      if (between > best) {
        best = between;
        best_at = t;
      }
    }
    const TwoParts parts = part_in_two(counts);
    CHECK(parts.first_above == best_at);
    CHECK(parts.parted == Approx(best / variance));
  }
}

TEST_CASE("a threshold between two far peaks lies in the middle", "[core][stats][otsu]") {
  std::vector<std::uint64_t> counts(100);
  counts[10] = counts[80] = 7;
  const TwoParts parts = part_in_two(counts);
  CHECK(parts.first_above == 45);
  CHECK(parts.parted == Approx(1));
  CHECK(part_in_two(std::vector<std::uint64_t>{0, 5, 0}).first_above == 0);
  CHECK(part_in_two(std::vector<std::uint64_t>{}).first_above == 0);
}
