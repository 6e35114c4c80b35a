// Advice on features, from made-up classes whose answer is plain.
#include "core/learn/feature_advice.h"

#include <catch2/catch.hpp>
#include <cmath>

#include "core/learn/sample_shape.h"

using namespace chalcedony;

namespace {

/// A class with this mean and a spread of 2 in every feature.
ModelClass class_at(const std::string& name, const std::vector<double>& mean) {
  ModelClass c{name, "#000000", {}};
  const auto n = static_cast<Eigen::Index>(mean.size());
  c.statistics.count = 500;
  c.statistics.mean = Eigen::Map<const Eigen::VectorXd>(mean.data(), n);
  c.statistics.covariance = 4 * Eigen::MatrixXd::Identity(n, n);
  return c;
}

Model advice_model_of(const std::string& features, std::vector<ModelClass> classes) {
  Model model;
  model.features = channels_named(features);
  model.classes = std::move(classes);
  return model;
}

}  // namespace

TEST_CASE("pairs that one feature alone tells apart are found", "[core][learn]") {
  const Model model =
      advice_model_of("lab", {class_at("lead", {20, 0, 0}), class_at("clear", {80, 1, 0}),
                              class_at("ruby", {40, 50, 25})});
  const auto found = lone_features(model);
  REQUIRE(found.size() == 1);
  CHECK(found[0].first == 0);
  CHECK(found[0].second == 1);
  CHECK(found[0].feature == 0);
  CHECK(found[0].with == Approx(2).margin(1e-6));
  // Without lightness they are one spread of 2 and a difference of 1: B = 1/32.
  CHECK(found[0].without == Approx(2 * (1 - std::exp(-1.0 / 32))).margin(1e-4));
  CHECK(lone_features(advice_model_of("lab.l", {class_at("a", {0}), class_at("b", {90})})).empty());
}

TEST_CASE("lightness is needless when the worst pair does without", "[core][learn]") {
  const Model colored =
      advice_model_of("lab", {class_at("ruby", {40, 50, 25}), class_at("cobalt", {30, 17, -56})});
  const auto found = needless_lightness(colored);
  REQUIRE(found);
  CHECK(found->features == std::vector<std::size_t>{1, 2});
  CHECK(found->without == Approx(found->with).margin(0.02));
  // Lead and clear glass differ in nothing else.
  CHECK_FALSE(needless_lightness(
      advice_model_of("lab", {class_at("lead", {20, 0, 0}), class_at("clear", {80, 1, 0})})));
  // Nothing to leave out, or nothing left.
  CHECK_FALSE(needless_lightness(
      advice_model_of("lab.a,lab.b", {class_at("a", {0, 0}), class_at("b", {50, 0})})));
  CHECK_FALSE(
      needless_lightness(advice_model_of("lab.l", {class_at("a", {0}), class_at("b", {50})})));
  // Red, green and blue are no lightness, the value of hsv is.
  CHECK_FALSE(needless_lightness(
      advice_model_of("srgb", {class_at("a", {0, 0, 0}), class_at("b", {50, 0, 90})})));
  CHECK(needless_lightness(
      advice_model_of("hsv.s,hsv.v", {class_at("a", {10, 50}), class_at("b", {90, 50})})));
}

TEST_CASE("samples that share pixels or are there twice are counted by class", "[core][learn]") {
  SampleSet samples;
  const auto box = [&](const std::string& name, double x, double y, double w, double h) {
    SampleShape shape;
    shape.sample_class = samples.class_named(name);
    shape.rings = {{{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}, {x, y}}};
    samples.shapes.push_back(shape);
  };
  box("a", 0, 0, 10, 4);
  box("b", 8, 2, 4, 4);   // 2 x 2 with a
  box("c", 9, 3, 2, 2);   // 1 with a, 2 x 2 with b
  box("b", 8, 2, 4, 4);   // the same again
  box("b", 20, 0, 1, 1);  // apart
  const auto shared = pixels_shared_by_pairs(sample_runs(samples, 30, 10));
  REQUIRE(shared.size() == 3);
  CHECK(shared[0].pixels == 4);
  CHECK(shared[1].pixels == 1);
  CHECK(shared[2].pixels == 4);
  CHECK(shared[2].first == 1);
  CHECK(shared[2].second == 2);
  CHECK(repeated_shapes(samples) == std::vector<std::size_t>{0, 1, 0});
}
