// The tree of samples and the classifier on it against looking at every sample pixel.
#include "core/learn/nearest_neighbor.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "core/error.h"
#include "core/learn/reach.h"
#include "core/learn/sample_tree.h"
#include "core/planes.h"

using namespace chalcedony;

namespace {

Model neighbor_model_of(const SampleTable& table, std::size_t neighbors) {
  Model model;
  model.method = "nearest-neighbor";
  model.features = channels_named("lab");
  model.neighbors = neighbors;
  for (std::size_t c = 0; c < table.classes(); ++c) {
    ModelClass one{std::string(1, static_cast<char>('a' + c)), "#000000", table.statistics(c)};
    one.samples = table.of(c);
    model.classes.push_back(one);
  }
  return model;
}

/// Whole numbers, so that many samples lie at exactly the same distance.
SampleTable random_samples(unsigned seed, std::size_t classes, int rows) {
  std::mt19937 random(seed);
  std::uniform_int_distribution<int> value(-9, 9), count(1, 3);
  SampleTable table(3);
  for (std::size_t c = 0; c < classes; ++c)
    for (int i = 0; i < rows; ++i) {
      const float row[] = {static_cast<float>(value(random) + 4 * static_cast<int>(c)),
                           static_cast<float>(value(random)), static_cast<float>(value(random))};
      table.add(c, row, static_cast<std::uint64_t>(count(random)));
    }
  table.join_equal_rows();
  return table;
}

struct PlainSample {
  float distance;
  std::size_t sample_class;
};

/// Every sample pixel by its distance, ties by class.
std::vector<PlainSample> by_distance(const SampleTable& table, const float* pixel) {
  std::vector<PlainSample> all;
  for (std::size_t c = 0; c < table.classes(); ++c)
    for (std::size_t i = 0; i < table.of(c).rows(); ++i) {
      float sum = 0;
      for (std::size_t f = 0; f < 3; ++f) {
        const float step = pixel[f] - table.of(c).row(i)[f];
        sum += step * step;
      }
      for (std::uint64_t k = 0; k < table.of(c).counts[i]; ++k) all.push_back({sum, c});
    }
  std::stable_sort(all.begin(), all.end(), [](const PlainSample& a, const PlainSample& b) {
    return a.distance != b.distance ? a.distance < b.distance : a.sample_class < b.sample_class;
  });
  return all;
}

}  // namespace

TEST_CASE("nearest neighbors are those of a search through all samples", "[core][learn]") {
  const std::size_t neighbors = GENERATE(1, 2, 7, 40);
  const SampleTable table = random_samples(7, 3, 300);
  const Model model = neighbor_model_of(table, neighbors);
  const auto classifier = make_classifier(model);
  std::mt19937 random(11);
  std::uniform_int_distribution<int> value(-15, 22);
  PlaneBuffer planes(3), distances(3), shares(3);
  constexpr std::size_t n = 500;
  for (std::size_t i = 0; i < n; ++i)
    for (std::size_t f = 0; f < 3; ++f)
      planes.plane(f)[i] = static_cast<float>(value(random)) / (i % 2 ? 1.0f : 3.0f);
  const std::vector<const float*> features{planes.plane(0), planes.plane(1), planes.plane(2)};
  std::vector<Label> labels(n + kPlanePadding);
  classifier->classify(features, n, labels.data());
  classifier->distances(features, n, {distances.plane(0), distances.plane(1), distances.plane(2)});
  classifier->probabilities(features, n, {shares.plane(0), shares.plane(1), shares.plane(2)});
  for (std::size_t i = 0; i < n; ++i) {
    const float pixel[] = {features[0][i], features[1][i], features[2][i]};
    const auto plain = by_distance(table, pixel);
    std::vector<std::size_t> votes(3);
    std::vector<float> nearest(3, 1e30f);
    for (std::size_t k = 0; k < neighbors; ++k) ++votes[plain[k].sample_class];
    for (const PlainSample& sample : plain)
      nearest[sample.sample_class] = std::min(nearest[sample.sample_class], sample.distance);
    const auto winner = std::max_element(votes.begin(), votes.end()) - votes.begin();
    REQUIRE(labels[i] == winner + 1);
    for (std::size_t c = 0; c < 3; ++c) {
      REQUIRE(distances.plane(c)[i] == Approx(std::sqrt(nearest[c])));
      REQUIRE(shares.plane(c)[i] ==
              Approx(static_cast<double>(votes[c]) / static_cast<double>(neighbors)));
    }
    // An explanation sorts all samples, which takes long without optimization.
    if (i % 10 != 0) continue;
    const Explanation why =
        explain_nearest_neighbor(model, {double{pixel[0]}, double{pixel[1]}, double{pixel[2]}});
    REQUIRE(*why.classes[0].votes == votes[0]);
    REQUIRE(why.neighbors.front().squared_distance == plain[0].distance);
  }
  CHECK(classifier->knows_likelihood() == (neighbors > 1));
}

TEST_CASE("a sample is not its own neighbor when the reach is measured", "[core][learn]") {
  SampleTable table(1);
  const float values[] = {0, 1, 3, 3, 10};
  for (const float& value : values) table.add(0, &value);
  table.join_equal_rows();
  Model model = neighbor_model_of(table, 1);
  model.features = channels_named("lab.l");
  measure_reach(model, table);
  // Distances to the nearest other pixel: 1, 1, 0, 0, 7.
  CHECK(model.classes[0].reach == std::vector<double>{7, 7, 7, 7, 7});
}

TEST_CASE("a model without samples has no neighbors", "[core][learn]") {
  SampleTable table(3);
  const float row[] = {1, 2, 3};
  table.add(0, row);
  Model model = neighbor_model_of(table, 1);
  model.classes[0].samples = {};
  CHECK_THROWS_WITH(make_classifier(model), Catch::Contains("has no sample pixels in the model"));
}
