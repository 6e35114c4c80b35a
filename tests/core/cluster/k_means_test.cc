// k-means against a plain Lloyd, and weights against repeated points.
#include "core/cluster/k_means.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <numeric>
#include <random>
#include <set>

#include "core/cluster/scatter.h"
#include "core/error.h"
#include "tests/support/point_cloud.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

/// Overlapping blobs of quantised colors, as a picture has.
PointCloud points_of(unsigned seed, std::size_t size, std::size_t dimensions, unsigned blobs) {
  std::mt19937 random(seed);
  std::normal_distribution<double> normal;
  std::vector<std::vector<double>> middles(blobs, std::vector<double>(dimensions));
  for (auto& middle : middles)
    for (double& m : middle) m = 128 + 55 * normal(random);
  PointCloud cloud{std::vector<std::vector<float>>(dimensions), {}};
  for (std::size_t i = 0; i < size; ++i) {
    const auto& middle = middles[random() % blobs];
    for (std::size_t f = 0; f < dimensions; ++f)
      cloud.features[f].push_back(static_cast<float>(std::round(middle[f] + 14 * normal(random))));
    cloud.weights.push_back(1 + random() % 9);
  }
  return cloud;
}

struct Plain {
  Centers centers;
  double sum_of_squares = 0;
};

/// Lloyd's steps point by point in double, to the end.
Plain plain_lloyd(const Points& points, Centers centers) {
  const std::size_t d = points.dimensions(), k = centers.size() / d;
  Plain out{centers, 1e300};
  for (int step = 0; step < 1000; ++step) {
    std::vector<double> sums(k * d), weights(k);
    double within = 0;
    for (std::size_t i = 0; i < points.size; ++i) {
      std::size_t best = 0;
      double least = 1e300;
      for (std::size_t c = 0; c < k; ++c) {
        double sum = 0;
        for (std::size_t f = 0; f < d; ++f)
          sum += std::pow(static_cast<double>(points.features[f][i]) - centers[c * d + f], 2);
        if (sum < least) {
          least = sum;
          best = c;
        }
      }
      within += points.weights[i] * least;
      weights[best] += points.weights[i];
      for (std::size_t f = 0; f < d; ++f)
        sums[best * d + f] += points.weights[i] * static_cast<double>(points.features[f][i]);
    }
    if (within >= out.sum_of_squares) return out;
    for (std::size_t c = 0; c < k; ++c)
      for (std::size_t f = 0; f < d; ++f)
        if (weights[c] > 0) centers[c * d + f] = sums[c * d + f] / weights[c];
    out = {centers, within};
  }
  return out;
}

Centers random_start(const Points& points, std::size_t k, std::mt19937& random) {
  Centers centers;
  for (std::size_t c = 0; c < k; ++c) {
    const std::size_t i = random() % points.size;
    for (const float* feature : points.features) centers.push_back(static_cast<double>(feature[i]));
  }
  return centers;
}

KMeansOptions to_the_end(std::size_t k) {
  KMeansOptions options;
  options.k = k;
  options.most_iterations = 1000;
  options.movement = 0;
  return options;
}

}  // namespace

TEST_CASE("skipping distances by their bounds changes nothing", "[core][cluster]") {
  for (unsigned seed = 1; seed <= 12; ++seed) {
    const std::size_t d = 1 + seed % 4, k = 2 + seed;
    const PointCloud cloud = points_of(seed, 9001, d, 7);
    const Points points = cloud.view();
    // From points that differ: the plain way leaves a center without points where it is.
    const Centers start = starting_centers(DrawnPoints(points, 1), k, CenterStart::kRandom, seed);
    const KMeans ours = move_centers(points, start, to_the_end(k));
    const Plain plain = plain_lloyd(points, start);
    INFO("seed " << seed);
    CHECK(ours.runs[0].settled);
    CHECK(ours.sum_of_squares() == Approx(plain.sum_of_squares).epsilon(1e-7));
    for (std::size_t i = 0; i < start.size(); ++i)
      CHECK(ours.centers[i] == Approx(plain.centers[i]).margin(255 * 1e-6));
  }
}

TEST_CASE("a weight is as good as as many equal points", "[core][cluster]") {
  const PointCloud cloud = points_of(3, 4000, 3, 5);
  PointCloud repeated{std::vector<std::vector<float>>(3), {}};
  for (std::size_t i = 0; i < cloud.weights.size(); ++i)
    for (int times = 0; times < static_cast<int>(cloud.weights[i]); ++times) {
      for (std::size_t f = 0; f < 3; ++f) repeated.features[f].push_back(cloud.features[f][i]);
      repeated.weights.push_back(1);
    }
  std::mt19937 random(1);
  const Centers start = random_start(cloud.view(), 8, random);
  const KMeans weighted = move_centers(cloud.view(), start, to_the_end(8));
  const KMeans each = move_centers(repeated.view(), start, to_the_end(8));
  CHECK(weighted.sum_of_squares() == Approx(each.sum_of_squares()).epsilon(1e-7));
  for (std::size_t i = 0; i < start.size(); ++i)
    CHECK(weighted.centers[i] == Approx(each.centers[i]).margin(255 * 1e-6));
}

TEST_CASE("some starts come within half a percent of the best of fifty", "[core][cluster]") {
  for (unsigned seed = 11; seed < 23; ++seed) {
    const PointCloud cloud = points_of(seed, 3000, 3, 6);
    const Points points = cloud.view();
    std::mt19937 random(seed);
    double best = 1e300;
    for (int run = 0; run < 50; ++run)
      best = std::min(best, plain_lloyd(points, random_start(points, 6, random)).sum_of_squares);
    KMeansOptions options;
    options.k = 6;
    options.seed = seed;
    const KMeans ours = k_means(DrawnPoints(points, seed), options);
    INFO("seed " << seed);
    CHECK(ours.sum_of_squares() <= 1.005 * best);
    CHECK(ours.runs.size() == options.restarts);
    // Sums of one grouping may differ in their last digit.
    for (const KMeansRun& run : ours.runs)
      CHECK(run.sum_of_squares >= (1 - 1e-12) * ours.sum_of_squares());
  }
}

TEST_CASE(
    "starts differ by seed and by how they are drawn, and more of them than colors are refused",
    "[core][cluster]") {
  const PointCloud cloud = points_of(5, 500, 2, 4);
  const DrawnPoints points(cloud.view(), 1);
  CHECK(starting_centers(points, 4, CenterStart::kSpread, 1) ==
        starting_centers(points, 4, CenterStart::kSpread, 1));
  CHECK(starting_centers(points, 4, CenterStart::kSpread, 1) !=
        starting_centers(points, 4, CenterStart::kSpread, 2));
  CHECK(starting_centers(points, 4, CenterStart::kSpread, 1) !=
        starting_centers(points, 4, CenterStart::kRandom, 1));

  const PointCloud three{{{1, 2, 2, 1, 9}}, {1, 1, 1, 1, 1}};
  const Centers all = starting_centers(DrawnPoints(three.view(), 1), 3, CenterStart::kRandom, 7);
  CHECK(std::set<double>(all.begin(), all.end()) == std::set<double>{1, 2, 9});
  CHECK_THROWS_WITH(
      starting_centers(DrawnPoints(three.view(), 1), 4, CenterStart::kSpread, 1),
      Catch::Contains("too few different colors for 4 groups: 3") && Catch::Contains("at most 3"));
}

TEST_CASE("a grouping that no movement makes better is left by regrouping", "[core][cluster]") {
  // Nine spots far apart, one of which holds most points: centers drawn by pixels alone mostly
  // begin there.
  std::mt19937 random(4);
  std::normal_distribution<float> spread(0, 1);
  PointCloud cloud{{{}, {}}, {}};
  Centers middles;
  for (int spot = 0; spot < 9; ++spot) {
    const float x = static_cast<float>(40 * (spot % 3)), y = static_cast<float>(40 * (spot / 3));
    middles.insert(middles.end(), {static_cast<double>(x), static_cast<double>(y)});
    for (int i = 0; i < (spot == 0 ? 2000 : 100); ++i) {
      cloud.features[0].push_back(x + spread(random));
      cloud.features[1].push_back(y + spread(random));
      cloud.weights.push_back(1);
    }
  }
  const Points points = cloud.view();
  const double least = move_centers(points, middles, to_the_end(9)).sum_of_squares();
  std::size_t regrouped = 0;
  for (std::uint64_t seed = 1; seed <= 10; ++seed) {
    INFO("seed " << seed);
    KMeansOptions options = to_the_end(9);
    options.restarts = 1;
    options.start = CenterStart::kRandom;
    options.seed = seed;
    const KMeans found = k_means(DrawnPoints(points, seed), options);
    CHECK(found.sum_of_squares() <= 1.005 * least);
    regrouped += found.runs[0].regrouped ? 1 : 0;
  }
  CHECK(regrouped > 0);
}

TEST_CASE("a center without points moves to the farthest one", "[core][cluster]") {
  const PointCloud cloud{{{0, 1, 2, 100}}, {1, 1, 1, 1}};
  const KMeans moved = move_centers(cloud.view(), {1, 500}, to_the_end(2));
  CHECK(moved.centers == Centers{1, 100});
  CHECK(moved.sum_of_squares() == Approx(2));
  // About the mean, 25.75.
  CHECK(scatter_of(cloud.view()).sum_of_squares ==
        Approx(25.75 * 25.75 + 24.75 * 24.75 + 23.75 * 23.75 + 74.25 * 74.25));
}

TEST_CASE("of many points some are drawn for starts, but all decide", "[core][cluster]") {
  const PointCloud cloud = points_of(21, 60000, 3, 5);
  const Points points = cloud.view();
  const DrawnPoints drawn(points, 3, 2000);
  CHECK(drawn.drawn().size == 2000);
  CHECK(drawn.all().size == 60000);
  KMeansOptions options = to_the_end(5);
  const KMeans ours = k_means(drawn, options);
  CHECK(ours.runs[ours.best].settled);
  // Nothing is left to be gained from there by the plain way over all points.
  CHECK(plain_lloyd(points, ours.centers).sum_of_squares ==
        Approx(ours.sum_of_squares()).epsilon(1e-12));
  double weight = 0;
  for (const double w : ours.weights) weight += w;
  CHECK(weight == std::accumulate(cloud.weights.begin(), cloud.weights.end(), 0.0));
  // A color too rare to be drawn is found all the same.
  PointCloud rare{{std::vector<float>(5000, 10)}, std::vector<double>(5000, 100)};
  rare.features[0][17] = 200;
  rare.weights[17] = 1;
  const Centers both =
      starting_centers(DrawnPoints(rare.view(), 1, 50), 2, CenterStart::kSpread, 1);
  CHECK(std::set<double>(both.begin(), both.end()) == std::set<double>{10, 200});
}
