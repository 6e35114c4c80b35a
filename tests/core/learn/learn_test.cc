// Sample regions, class statistics, separability and the minimum-distance classifier.
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "core/error.h"
#include "core/learn/class_statistics.h"
#include "core/learn/classifier.h"
#include "core/learn/sample_shape.h"
#include "core/learn/separability.h"
#include "core/planes.h"

using namespace chalcedony;

namespace {

SampleSet one_polygon(std::vector<std::vector<Position>> rings) {
  SampleSet set;
  set.class_named("a");
  SampleShape shape;
  shape.rings = std::move(rings);
  set.shapes.push_back(shape);
  return set;
}

std::uint64_t pixels(const std::vector<SampleRun>& runs) {
  std::uint64_t sum = 0;
  for (const SampleRun& run : runs) sum += run.end - run.begin;
  return sum;
}

std::vector<Position> rectangle(double x1, double y1, double x2, double y2) {
  return {{x1, y1}, {x2, y1}, {x2, y2}, {x1, y2}, {x1, y1}};
}

ClassStatistics gaussian(double mean, double variance, std::uint64_t count = 100) {
  ClassStatistics s;
  s.count = count;
  s.mean = Eigen::VectorXd::Constant(1, mean);
  s.covariance = Eigen::MatrixXd::Constant(1, 1, variance);
  s.smallest = s.largest = s.mean;
  return s;
}

}  // namespace

TEST_CASE("polygons hold the pixels whose centers they hold", "[core][learn][samples]") {
  CHECK(pixels(sample_runs(one_polygon({rectangle(1, 1, 4, 3)}), 10, 10)) == 6);
  // Edges through centers: left and upper ones belong to the shape, right and lower ones do not.
  const auto runs = sample_runs(one_polygon({rectangle(1.5, 1.5, 4.5, 3.5)}), 10, 10);
  REQUIRE(runs.size() == 2);
  CHECK(runs[0].begin == 11);
  CHECK(runs[0].end == 14);
  CHECK(runs[1].begin == 21);
  // Two shapes that touch share no pixel and leave none out.
  SampleSet halves = one_polygon({rectangle(0, 0, 5.5, 10)});
  halves.shapes.push_back(halves.shapes[0]);
  halves.shapes[1].rings = {rectangle(5.5, 0, 10, 10)};
  CHECK(pixels(sample_runs(halves, 10, 10)) == 100);
  // A sample over the whole width is a run a row, never a longer one.
  for (const SampleRun& run : sample_runs(one_polygon({rectangle(0, 2, 10, 8)}), 10, 10))
    CHECK((run.end - 1) / 10 == run.begin / 10);
  CHECK(shared_pixels(sample_runs(halves, 10, 10)) == 0);
}

TEST_CASE("rings count even-odd, whatever their winding", "[core][learn][samples]") {
  auto hole = rectangle(3, 3, 7, 7);
  CHECK(pixels(sample_runs(one_polygon({rectangle(0, 0, 10, 10), hole}), 10, 10)) == 84);
  std::reverse(hole.begin(), hole.end());
  CHECK(pixels(sample_runs(one_polygon({rectangle(0, 0, 10, 10), hole}), 10, 10)) == 84);
  // A triangle: rows of 1, 3, 5, 7 and 9 centers, less those cut by the slopes.
  CHECK(pixels(sample_runs(one_polygon({{{0, 10}, {10, 0}, {10, 10}, {0, 10}}}), 10, 10)) == 55);
}

TEST_CASE("points take one pixel or a disk that holds its edge", "[core][learn][samples]") {
  SampleSet set;
  set.class_named("a");
  SampleShape shape;
  shape.point = {3.2, 4.9};
  set.shapes.push_back(shape);
  auto runs = sample_runs(set, 10, 10);
  REQUIRE(runs.size() == 1);
  CHECK(runs[0].begin == 43);
  CHECK(pixels(runs) == 1);
  set.shapes[0].point = {5.5, 5.5};
  set.shapes[0].radius = 1;
  CHECK(pixels(sample_runs(set, 10, 10)) == 5);
  set.shapes[0].radius = 2;
  CHECK(pixels(sample_runs(set, 10, 10)) == 13);
}

TEST_CASE("samples outside the picture are refused by class, overlaps are counted",
          "[core][learn][samples]") {
  CHECK_THROWS_WITH(sample_runs(one_polygon({rectangle(5, 5, 12, 8)}), 10, 10),
                    Catch::Contains("class 'a' reaches outside the picture, which is 10x10"));
  SampleSet set = one_polygon({rectangle(0, 0, 4, 1)});
  set.class_named("b");
  set.shapes.push_back(set.shapes[0]);
  set.shapes[1].sample_class = 1;
  set.shapes[1].rings = {rectangle(2, 0, 6, 1)};
  CHECK(shared_pixels(sample_runs(set, 10, 10)) == 2);
  set.shapes[1].sample_class = 0;  // within one class a pixel is taken once
  CHECK(pixels(sample_runs(set, 10, 10)) == 6);
}

TEST_CASE("class statistics divide by n - 1", "[core][learn][statistics]") {
  ClassSums sums(2), rest(2);
  const double points[4][2] = {{1, 2}, {3, 5}, {5, 5}, {7, 12}};
  for (int i = 0; i < 2; ++i) sums.add(points[i]);
  for (int i = 2; i < 4; ++i) rest.add(points[i]);
  sums += rest;
  const ClassStatistics s = sums.statistics();
  CHECK(s.count == 4);
  CHECK(s.mean[0] == 4);
  CHECK(s.mean[1] == 6);
  CHECK(s.covariance(0, 0) == Approx(20.0 / 3));
  CHECK(s.covariance(1, 1) == Approx(54.0 / 3));
  CHECK(s.covariance(0, 1) == Approx(30.0 / 3));
  CHECK(s.covariance(1, 0) == s.covariance(0, 1));
  CHECK(s.smallest[1] == 2);
  CHECK(s.largest[1] == 12);
}

TEST_CASE("separability follows its closed forms in one dimension", "[core][learn][separability]") {
  const Eigen::VectorXd no_floor = Eigen::VectorXd::Zero(1);
  // Equal variances 4, means 3 apart: B = 9 / (8 * 4), D = 9 / 4.
  const auto s = separability(gaussian(0, 4), gaussian(3, 4), no_floor);
  REQUIRE(s.has_value());
  CHECK(s->jeffries_matusita == Approx(2 * (1 - std::exp(-9.0 / 32))));
  CHECK(s->transformed_divergence == Approx(2 * (1 - std::exp(-9.0 / 4 / 8))));
  CHECK(s->confusion_bound == Approx(50 * std::exp(-9.0 / 32)));
  // Equal means, variances 1 and 9: B = ln(5 / 3) / 2.
  const auto v = separability(gaussian(0, 1), gaussian(0, 9), no_floor);
  CHECK(v->jeffries_matusita == Approx(2 * (1 - std::sqrt(3.0 / 5))));
  CHECK(separability(gaussian(0, 1), gaussian(0, 1), no_floor)->jeffries_matusita ==
        Approx(0).margin(1e-12));
  CHECK_FALSE(separability(gaussian(0, 1, 2), gaussian(0, 1), no_floor).has_value());
  const Eigen::VectorXd floor = Eigen::VectorXd::Constant(1, 0.01);
  CHECK(separability(gaussian(0, 0), gaussian(1, 0), floor)->jeffries_matusita == Approx(2));
}

TEST_CASE("minimum distance picks the nearest mean, the lowest class on ties",
          "[core][learn][classifier]") {
  Model model;
  model.method = "minimum-distance";
  model.features = channels_of(spaces::kLab);
  std::mt19937 random(2);
  std::vector<std::array<double, 3>> means;
  for (int c = 0; c < 9; ++c) {
    means.push_back(
        {double(random() % 100), double(random() % 200) - 100, double(random() % 200) - 100});
    ClassStatistics s;
    s.mean = Eigen::Map<const Eigen::VectorXd>(means.back().data(), 3);
    model.classes.push_back({"c" + std::to_string(c), "#000000", s});
  }
  model.classes[4].statistics.mean = model.classes[2].statistics.mean;  // a tie for class 3
  means[4] = means[2];
  PlaneBuffer planes;
  const std::size_t n = 1001;
  for (std::size_t i = 0; i < n; ++i)
    for (std::size_t f = 0; f < 3; ++f)
      planes.plane(f)[i] = static_cast<float>(random() % 2000) / 10.0f - 100.0f;
  for (std::size_t f = 0; f < 3; ++f) planes.plane(f)[7] = static_cast<float>(means[2][f]);
  planes.plane(1)[9] = std::nanf("");
  std::vector<Label> labels(kBlockPixels + kPlanePadding);
  const auto classifier = make_classifier(model);
  classifier->classify({planes.plane(0), planes.plane(1), planes.plane(2)}, n, labels.data());
  CHECK(labels[7] == 3);
  CHECK(labels[9] == 0);
  for (std::size_t i = 0; i < n; ++i) {
    if (i == 9) continue;
    std::size_t best = 0;
    double best_distance = 1e30, second = 1e30;
    for (std::size_t c = 0; c < means.size(); ++c) {
      double d = 0;
      for (std::size_t f = 0; f < 3; ++f) d += std::pow(planes.plane(f)[i] - means[c][f], 2);
      if (d < best_distance)
        second = best_distance, best_distance = d, best = c;
      else if (c != 4)
        second = std::min(second, d);
    }
    if (second - best_distance < 1e-2) continue;
    if (labels[i] != best + 1) FAIL("pixel " << i);
  }
  model.method = "minimum-distanse";
  CHECK_THROWS_WITH(make_classifier(model), Catch::Contains("did you mean 'minimum-distance'?"));
}
