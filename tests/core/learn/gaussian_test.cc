// Mahalanobis and maximum-likelihood classification against closed forms, a plain version in
// double, and a known error rate.
#include "core/learn/gaussian.h"

#include <Eigen/LU>
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "core/error.h"
#include "core/planes.h"

using namespace chalcedony;

namespace {

ModelClass bell(const std::string& name, double mean, double deviation, double prior) {
  ModelClass c{name, "#000000", {}, prior};
  c.statistics.count = 100;
  c.statistics.mean = Eigen::VectorXd::Constant(1, mean);
  c.statistics.covariance = Eigen::MatrixXd::Constant(1, 1, deviation * deviation);
  return c;
}

Model bell_model(const std::string& method, std::vector<ModelClass> classes,
                 const std::string& features = "lab.l") {
  Model model;
  model.method = method;
  model.features = channels_named(features);
  model.classes = std::move(classes);
  return model;
}

/// The label of one value of one feature.
unsigned label_of(const Model& model, float value) {
  PlaneBuffer plane(1);
  plane.plane(0)[0] = value;
  std::vector<Label> labels(kPlanePadding);
  make_classifier(model)->classify({plane.plane(0)}, 1, labels.data());
  return labels[0];
}

}  // namespace

TEST_CASE("Mahalanobis distance is judged in the spread of each class", "[core][learn]") {
  // |x| / 1 = |x - 10| / 3 at x = 2.5 between the means, and at x = -5 beyond.
  const Model model = bell_model("mahalanobis", {bell("a", 0, 1, 0.5), bell("b", 10, 3, 0.5)});
  CHECK(label_of(model, 2.4f) == 1);
  CHECK(label_of(model, 2.6f) == 2);
  CHECK(label_of(model, -4.9f) == 1);
  CHECK(label_of(model, -5.1f) == 2);
  CHECK(label_of(model, std::nanf("")) == 0);
}

TEST_CASE("maximum likelihood weighs densities and priors", "[core][learn]") {
  // Equal spreads: the border lies at 1 + ln(0.9 / 0.1) / 2.
  const Model prior =
      bell_model("maximum-likelihood", {bell("a", 0, 1, 0.9), bell("b", 2, 1, 0.1)});
  CHECK(label_of(prior, 2.09f) == 1);
  CHECK(label_of(prior, 2.11f) == 2);
  // Equal means, spreads 1 and 3: the wide one wins past sqrt(ln 3 * 2 / (1 - 1 / 9)).
  const Model wide = bell_model("maximum-likelihood", {bell("a", 0, 1, 0.5), bell("b", 0, 3, 0.5)});
  CHECK(label_of(wide, 1.56f) == 1);
  CHECK(label_of(wide, 1.59f) == 2);
}

TEST_CASE("both methods agree with the plain formulas in double", "[core][learn]") {
  std::mt19937 random(3);
  std::normal_distribution<double> normal;
  std::vector<ModelClass> classes;
  for (int c = 0; c < 6; ++c) {
    ModelClass one{"c" + std::to_string(c), "#000000", {}, (c + 1) / 21.0};
    one.statistics.count = 50;
    one.statistics.mean = Eigen::Vector3d(normal(random), normal(random), normal(random)) * 25;
    Eigen::Matrix3d root;
    for (int i = 0; i < 9; ++i) root(i / 3, i % 3) = 6 * normal(random);
    one.statistics.covariance = root * root.transpose() + Eigen::Matrix3d::Identity();
    classes.push_back(one);
  }
  PlaneBuffer planes;
  constexpr std::size_t n = 1003;
  for (std::size_t f = 0; f < 3; ++f)
    for (std::size_t i = 0; i < n; ++i)
      planes.plane(f)[i] = static_cast<float>(30 * normal(random));
  for (const char* method : {"mahalanobis", "maximum-likelihood"}) {
    const Model model = bell_model(method, classes, "lab");
    std::vector<Label> labels(kBlockPixels);
    make_classifier(model)->classify({planes.plane(0), planes.plane(1), planes.plane(2)}, n,
                                     labels.data());
    std::size_t wrong = 0;
    for (std::size_t i = 0; i < n; ++i) {
      const Eigen::Vector3d x(planes.plane(0)[i], planes.plane(1)[i], planes.plane(2)[i]);
      std::vector<double> scores;
      for (const ModelClass& c : classes) {
        const Eigen::Vector3d step = x - c.statistics.mean;
        double score = -0.5 * step.dot(c.statistics.covariance.inverse() * step);
        if (model.method == "maximum-likelihood")
          score += std::log(c.prior) - 0.5 * std::log(c.statistics.covariance.determinant());
        scores.push_back(score);
      }
      const auto best = std::max_element(scores.begin(), scores.end());
      // Labels may differ only where two classes are as good as equal.
      const double mine = scores[labels[i] - 1u];
      wrong += *best - mine > 1e-3 * std::max(1.0, std::abs(*best));
    }
    INFO(method);
    CHECK(wrong == 0);
  }
}

TEST_CASE("maximum likelihood comes within a point of the Bayes rate", "[core][learn]") {
  // Two bells two deviations apart: the best possible rate is the normal distribution at 1.
  std::mt19937 random(11);
  std::normal_distribution<double> normal;
  std::vector<ModelClass> classes;
  for (const double mean : {40.0, 42.0}) {
    ClassSums sums(1);
    for (int i = 0; i < 1000; ++i) {
      const double value = mean + normal(random);
      sums.add(&value);
    }
    classes.push_back({std::to_string(mean), "#000000", sums.statistics(), 0.5});
  }
  const auto classifier = make_classifier(bell_model("maximum-likelihood", classes));
  PlaneBuffer plane(1);
  std::vector<Label> labels(kBlockPixels);
  std::size_t right = 0, points = 0;
  while (points < 1'000'000) {
    for (std::size_t i = 0; i < kBlockPixels; ++i)
      plane.plane(0)[i] = static_cast<float>((i % 2 ? 42.0 : 40.0) + normal(random));
    classifier->classify({plane.plane(0)}, kBlockPixels, labels.data());
    for (std::size_t i = 0; i < kBlockPixels; ++i) right += labels[i] == i % 2 + 1;
    points += kBlockPixels;
  }
  const double rate = static_cast<double>(right) / static_cast<double>(points);
  CHECK(rate == Approx(0.8413447).margin(0.01));
  CHECK(rate < 0.8413447 + 0.002);
}

TEST_CASE("a covariance needs enough samples, a flat class has a density all the same",
          "[core][learn]") {
  Model few = bell_model("maximum-likelihood", {bell("thin", 0, 1, 0.5), bell("b", 5, 1, 0.5)});
  few.classes[0].statistics.count = 2;
  CHECK_THROWS_WITH(make_classifier(few),
                    Catch::Contains("class 'thin' has 2 sample pixels, too few") &&
                        Catch::Contains("draw at least 3"));
  const Model flat =
      bell_model("maximum-likelihood", {bell("flat", 50, 0, 0.5), bell("b", 60, 5, 0.5)});
  CHECK(label_of(flat, 50.0f) == 1);
  CHECK(label_of(flat, 50.5f) == 2);
}
