// Models as wholes: entries that are one class, names, divisors, probabilities.
#include "core/learn/model.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "core/color/css_color.h"
#include "core/error.h"
#include "core/learn/class_names.h"
#include "core/learn/classifier.h"
#include "core/planes.h"

using namespace chalcedony;

namespace {

/// Classes of one feature with these means and standard deviations of 1.
Model line_model(const std::string& method, const std::vector<double>& means) {
  Model model;
  model.method = method;
  model.features = channels_named("lab.l");
  for (std::size_t c = 0; c < means.size(); ++c) {
    ModelClass one{"c" + std::to_string(c + 1), c % 2 ? "#ffffff" : "#000000", {}, 1.0};
    one.prior = 1 / static_cast<double>(means.size());
    one.statistics.count = 10 * (c + 1);
    one.statistics.mean = Eigen::VectorXd::Constant(1, means[c]);
    one.statistics.smallest = one.statistics.largest = one.statistics.mean;
    one.statistics.covariance = Eigen::MatrixXd::Identity(1, 1);
    model.classes.push_back(one);
  }
  return model;
}

std::vector<unsigned> labels_of(const Model& model, const std::vector<float>& values) {
  PlaneBuffer plane(1);
  std::copy(values.begin(), values.end(), plane.plane(0));
  std::vector<Label> labels(values.size() + kPlanePadding);
  make_classifier(model)->classify({plane.plane(0)}, values.size(), labels.data());
  return {labels.begin(), labels.begin() + static_cast<std::ptrdiff_t>(values.size())};
}

std::vector<std::vector<float>> probabilities_of(const Model& model, std::size_t classes,
                                                 const std::vector<float>& values) {
  PlaneBuffer plane(1), out(classes);
  std::copy(values.begin(), values.end(), plane.plane(0));
  std::vector<float*> planes;
  for (std::size_t c = 0; c < classes; ++c) planes.push_back(out.plane(c));
  make_classifier(model)->probabilities({plane.plane(0)}, values.size(), planes);
  std::vector<std::vector<float>> by_class;
  for (const float* p : planes) by_class.emplace_back(p, p + values.size());
  return by_class;
}

}  // namespace

TEST_CASE("entries of one name are one class", "[core][learn]") {
  Model model = line_model("minimum-distance", {0, 10, 20, 30});
  CHECK(labels_of(model, {1, 11, 19, 33}) == std::vector<unsigned>{1, 2, 3, 4});
  merge_classes(model, "ends", {1, 4});
  const auto classes = map_classes(model);
  REQUIRE(classes.size() == 3);
  CHECK(classes[0].name == "ends");
  CHECK(class_numbers(model) == std::vector<Label>{1, 2, 3, 1});
  CHECK(labels_of(model, {1, 11, 19, 33}) == std::vector<unsigned>{1, 2, 3, 1});
  // 10 black pixels and 40 white ones make 0.8 of the way in oklab lightness.
  CHECK(classes[0].color == css_hex({&spaces::kOklab, {0.8, 0, 0}}));
}

TEST_CASE("a class of several entries is as far as the nearest of them", "[core][learn]") {
  for (const char* method : {"minimum-distance", "maximum-likelihood"}) {
    Model model = line_model(method, {0, 10, 20});
    const std::vector<float> values{1, 9, 14, 26};
    PlaneBuffer plane(1), each(3), merged(2);
    std::copy(values.begin(), values.end(), plane.plane(0));
    make_classifier(model)->distances({plane.plane(0)}, 4,
                                      {each.plane(0), each.plane(1), each.plane(2)});
    merge_classes(model, "ends", {1, 3});
    const auto classifier = make_classifier(model);
    CHECK(classifier->classes() == 2);
    CHECK(classifier->knows_likelihood() == (model.method == "maximum-likelihood"));
    classifier->distances({plane.plane(0)}, 4, {merged.plane(0), merged.plane(1)});
    for (std::size_t i = 0; i < 4; ++i) {
      CHECK(merged.plane(0)[i] == std::min(each.plane(0)[i], each.plane(2)[i]));
      CHECK(merged.plane(1)[i] == each.plane(1)[i]);
    }
    // Samples belong to an entry, not to its class.
    float of_last[4 + kPlanePadding];
    classifier->sample_distances(2, {plane.plane(0)}, 4, of_last);
    CHECK(of_last[0] == each.plane(2)[0]);
  }
}

TEST_CASE("names are given once, to groups that are there", "[core][learn]") {
  Model model = line_model("minimum-distance", {0, 10, 20});
  name_class(model, 2, "ruby");
  CHECK(model.classes[1].name == "ruby");
  CHECK_THROWS_WITH(
      name_class(model, 3, "ruby"),
      Catch::Contains("group 2 is called 'ruby' already") && Catch::Contains("--merge"));
  CHECK_THROWS_WITH(name_class(model, 4, "x"),
                    Catch::Contains("no group 4") && Catch::Contains("from 1 to 3"));
  CHECK_THROWS_WITH(merge_classes(model, "ruby", {1, 3}), Catch::Contains("already"));
  CHECK_THROWS_WITH(merge_classes(model, "x", {0, 1}), Catch::Contains("no group 0"));
  CHECK_NOTHROW(merge_classes(model, "ruby", {1, 2}));
}

TEST_CASE("a divided model judges divided features", "[core][learn]") {
  Model model = line_model("minimum-distance", {0, 10});
  model.scaling = "spread";
  model.divisors = {4};
  CHECK(labels_of(model, {1.2f, 1.3f}) == std::vector<unsigned>{1, 2});
  model.method = "maximum-likelihood";
  CHECK(labels_of(model, {1.2f, 1.3f}) == std::vector<unsigned>{1, 2});
  CHECK(scaled(model).classes[1].statistics.covariance(0, 0) == Approx(1 / 16.0));
}

TEST_CASE("probabilities are Bayes' and add up over entries of one class", "[core][learn]") {
  Model model = line_model("maximum-likelihood", {0, 2, 40});
  const std::vector<float> values{0.5f, 1, 300, std::nanf("")};
  const auto found = probabilities_of(model, 3, values);
  const auto density = [](double x, double mean) {
    return std::exp(-0.5 * (x - mean) * (x - mean));
  };
  CHECK(found[0][0] == Approx(density(0.5, 0) / (density(0.5, 0) + density(0.5, 2))).epsilon(1e-4));
  CHECK(found[1][1] == Approx(0.5).epsilon(1e-5));
  CHECK(found[2][2] == 1.0f);  // however far it is
  for (std::size_t c = 0; c < 3; ++c) CHECK(found[c][3] == 0.0f);

  merge_classes(model, "low", {1, 2});
  const auto merged = probabilities_of(model, 2, values);
  CHECK(merged[0][0] == Approx(1.0).epsilon(1e-5));
  CHECK(merged[1][2] == 1.0f);

  model.method = "minimum-distance";
  CHECK(probabilities_of(model, 2, values)[0][1] == 1.0f);
}
