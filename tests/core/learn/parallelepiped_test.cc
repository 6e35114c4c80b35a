// Classification by boxes against the rule written out plainly.
#include "core/learn/parallelepiped.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <limits>
#include <random>

#include "core/planes.h"

using namespace chalcedony;

namespace {

/// A class whose samples ranged from `low` to `high` in each feature.
ModelClass box(const std::string& name, const std::vector<double>& low,
               const std::vector<double>& high, double deviation = 1) {
  ModelClass c{name, "#000000", {}, 0.5};
  const auto n = static_cast<Eigen::Index>(low.size());
  c.statistics.count = 100;
  c.statistics.smallest = Eigen::Map<const Eigen::VectorXd>(low.data(), n);
  c.statistics.largest = Eigen::Map<const Eigen::VectorXd>(high.data(), n);
  c.statistics.mean = (c.statistics.smallest + c.statistics.largest) / 2;
  c.statistics.covariance = Eigen::MatrixXd::Identity(n, n) * deviation * deviation;
  return c;
}

Model box_model_of(std::vector<ModelClass> classes, const std::string& features,
                   double spread = 0) {
  Model model;
  model.method = "parallelepiped";
  model.features = channels_named(features);
  model.box_spread = spread;
  model.classes = std::move(classes);
  return model;
}

struct Answer {
  unsigned label, contested;
};

Answer answer(const Model& model, const std::vector<float>& pixel) {
  PlaneBuffer planes(pixel.size());
  std::vector<const float*> features;
  for (std::size_t f = 0; f < pixel.size(); ++f) {
    planes.plane(f)[0] = pixel[f];
    features.push_back(planes.plane(f));
  }
  std::vector<Label> labels(kPlanePadding);
  std::vector<std::uint8_t> contested(kPlanePadding);
  const auto classifier = make_classifier(model);
  classifier->classify(features, 1, labels.data(), {nullptr, contested.data()});
  return {labels[0], contested[0]};
}

}  // namespace

TEST_CASE("a pixel is of the class whose box holds it, ends included", "[core][learn]") {
  const Model model = box_model_of({box("a", {10}, {20}), box("b", {18}, {38})}, "lab.l");
  CHECK(answer(model, {10}).label == 1);
  CHECK(answer(model, {9.9f}).label == 0);
  CHECK(answer(model, {38}).label == 2);
  CHECK(answer(model, {38.1f}).label == 0);
  CHECK(answer(model, {std::nanf("")}).label == 0);
  // In both: 19 lies 4/5 of a half-width out of a, 9/10 out of b.
  CHECK(answer(model, {19}).label == 1);
  CHECK(answer(model, {19}).contested == 1);
  CHECK(answer(model, {19.9f}).label == 2);
  CHECK(answer(model, {15}).contested == 0);
}

TEST_CASE("boxes reach as many standard deviations as asked", "[core][learn]") {
  const Model model = box_model_of({box("a", {10}, {20}, 2)}, "lab.l", 1.5);
  CHECK(answer(model, {12.01f}).label == 1);
  CHECK(answer(model, {11.9f}).label == 0);
  CHECK(answer(model, {18}).label == 1);
}

TEST_CASE("boxes of several features agree with the plain rule", "[core][learn]") {
  const std::vector<ModelClass> classes{box("a", {0, -40, -10}, {60, 20, 50}),
                                        box("b", {30, -20, 0}, {90, 60, 20}),
                                        box("c", {50, 0, -60}, {55, 5, 60})};
  const Model model = box_model_of(classes, "lab");
  std::mt19937 random(5);
  std::uniform_real_distribution<float> value(-70, 100);
  for (int i = 0; i < 2000; ++i) {
    const std::vector<float> pixel{value(random), value(random), value(random)};
    unsigned best = 0, claims = 0;
    double least = std::numeric_limits<double>::infinity();
    for (std::size_t c = 0; c < classes.size(); ++c) {
      double out = 0;
      for (Eigen::Index f = 0; f < 3; ++f) {
        const auto& s = classes[c].statistics;
        out = std::max(out, std::abs(double{pixel[static_cast<std::size_t>(f)]} - s.mean[f]) /
                                ((s.largest[f] - s.smallest[f]) / 2));
      }
      if (out > 1) continue;
      ++claims;
      if (out < least) least = out, best = static_cast<unsigned>(c + 1);
    }
    const Answer found = answer(model, pixel);
    REQUIRE(found.label == best);
    REQUIRE(found.contested == (claims > 1 ? 1u : 0u));
  }
}
