// Accuracies, kappa and area estimates against published examples and a second, plain way.
#include "core/assess/accuracy.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "core/assess/area_estimate.h"
#include "core/assess/map_comparison.h"
#include "core/stats/proportion.h"
#include "tests/support/tables.h"

using namespace chalcedony;

namespace {

ErrorMatrix matrix_of(const std::vector<std::vector<std::uint64_t>>& rows) {
  ErrorMatrix matrix(rows.size(), rows[0].size());
  for (std::size_t r = 0; r < rows.size(); ++r)
    for (std::size_t c = 0; c < rows[r].size(); ++c) matrix.add(r, c, rows[r][c]);
  return matrix;
}

ErrorMatrix congalton() {
  ErrorMatrix matrix(4, 4);
  const auto rows = test::table("error-matrix-congalton-1991.csv");
  for (std::size_t r = 0; r < 4; ++r)
    for (std::size_t c = 0; c < 4; ++c) matrix.add(r, c, std::stoull(rows[r][c + 1]));
  return matrix;
}

double kappa_of_shares(const std::vector<std::vector<double>>& p) {
  double observed = 0, chance = 0;
  for (std::size_t i = 0; i < p.size(); ++i) {
    observed += p[i][i];
    double row = 0, column = 0;
    for (std::size_t j = 0; j < p.size(); ++j) row += p[i][j], column += p[j][i];
    chance += row * column;
  }
  return (observed - chance) / (1 - chance);
}

/// The variance of kappa the long way: its gradient by differences, and the covariance of the
/// shares of a multinomial sample.
double kappa_variance_by_differences(const ErrorMatrix& m) {
  const std::size_t size = m.rows();
  const double n = static_cast<double>(m.total());
  std::vector<std::vector<double>> p(size, std::vector<double>(size)), gradient = p;
  for (std::size_t i = 0; i < size; ++i)
    for (std::size_t j = 0; j < size; ++j) p[i][j] = static_cast<double>(m.at(i, j)) / n;
  constexpr double kStep = 1e-6;
  double mean = 0, square = 0;
  for (std::size_t i = 0; i < size; ++i)
    for (std::size_t j = 0; j < size; ++j) {
      auto up = p, down = p;
      up[i][j] += kStep;
      down[i][j] -= kStep;
      gradient[i][j] = (kappa_of_shares(up) - kappa_of_shares(down)) / (2 * kStep);
      mean += p[i][j] * gradient[i][j];
      square += p[i][j] * gradient[i][j] * gradient[i][j];
    }
  return (square - mean * mean) / n;
}

}  // namespace

TEST_CASE("kappa of Congalton's matrix, its variance and interval", "[core][assess]") {
  const Accuracy a = accuracy_of(congalton(), 0.95);
  CHECK(a.total == 434);
  CHECK(*a.overall == Approx(321.0 / 434));
  CHECK(a.kappa->value == Approx(0.65).margin(0.005));
  // The printed 0.0007778 has two indices swapped; the delta method gives this.
  CHECK(a.kappa->variance == Approx(0.00076995).margin(5e-9));
  CHECK(a.kappa->interval.high - a.kappa->value == Approx(1.959964 * std::sqrt(0.00076995)));
  CHECK(a.quantity_disagreement + a.allocation_disagreement == Approx(113.0 / 434));
  CHECK(*a.classes[0].users == Approx(0.57).margin(0.005));
  CHECK(*a.classes[0].producers == Approx(0.87).margin(0.005));
}

TEST_CASE("the variance of kappa is that of the delta method, for any matrix", "[core][assess]") {
  std::mt19937 random(5);
  for (int round = 0; round < 20; ++round) {
    const std::size_t size = 2 + random() % 4;
    ErrorMatrix m(size, size);
    for (std::size_t i = 0; i < size; ++i)
      for (std::size_t j = 0; j < size; ++j) m.add(i, j, random() % 40 + (i == j ? 30 : 1));
    CHECK(accuracy_of(m, 0.9).kappa->variance ==
          Approx(kappa_variance_by_differences(m)).epsilon(1e-4));
  }
}

TEST_CASE("figures of a small matrix worked by hand", "[core][assess]") {
  // Rows: two classes and unclassified.
  const Accuracy a = accuracy_of(matrix_of({{6, 2}, {1, 9}, {1, 1}}), 0.95);
  CHECK(*a.overall == Approx(15.0 / 20));
  const ClassAccuracy& first = a.classes[0];
  CHECK(first.mapped == 8);
  CHECK(first.reference == 8);
  CHECK(*first.users == Approx(0.75));
  CHECK(*first.producers == Approx(0.75));
  CHECK(*first.f1 == Approx(0.75));
  CHECK(*first.intersection == Approx(6.0 / 10));
  // Row share 0.4, column share 0.4, agreed 0.3: (0.3 - 0.16) / (0.4 - 0.16).
  CHECK(*first.kappa_users == Approx(0.14 / 0.24));
  CHECK(*first.kappa_producers == Approx(0.14 / 0.24));
  // Totals of the rows 0.4 0.5 0.1, of the columns 0.4 0.6 0.
  CHECK(a.quantity_disagreement == Approx(0.1));
  CHECK(a.allocation_disagreement == Approx(0.15));
}

TEST_CASE("awkward matrices give what can be said and no more", "[core][assess]") {
  CHECK_FALSE(accuracy_of(ErrorMatrix(3, 2), 0.95).overall.has_value());
  const Accuracy perfect = accuracy_of(matrix_of({{5, 0}, {0, 7}}), 0.95);
  CHECK(*perfect.overall == 1.0);
  CHECK(perfect.kappa->value == 1.0);
  CHECK(perfect.kappa->variance == 0.0);
  CHECK(perfect.overall_interval->high == 1.0);
  CHECK(perfect.overall_interval->low < 1.0);
  const Accuracy single = accuracy_of(matrix_of({{4}}), 0.95);
  CHECK(*single.overall == 1.0);
  CHECK_FALSE(single.kappa.has_value());
  const Accuracy empty_row = accuracy_of(matrix_of({{0, 0}, {3, 4}}), 0.95);
  CHECK_FALSE(empty_row.classes[0].users.has_value());
  CHECK_FALSE(empty_row.classes[0].kappa_users.has_value());
  CHECK(*empty_row.classes[0].producers == 0.0);
}

TEST_CASE("Wilson's interval and the normal quantile", "[core][stats]") {
  CHECK(normal_z(0.95) == Approx(1.959963985));
  CHECK(normal_z(0.99) == Approx(2.575829304));
  CHECK(two_sided_tail(-1.959963985) == Approx(0.05));
  // 8 of 10: (0.8 + 3.8415/20 +- 1.96 sqrt(0.016 + 3.8415/400)) / 1.38415, by hand.
  const auto interval = wilson_interval(8, 10, 0.95);
  CHECK(interval->low == Approx(0.490162).margin(1e-5));
  CHECK(interval->high == Approx(0.943318).margin(1e-5));
  CHECK(wilson_interval(0, 10, 0.95)->low == 0.0);
  CHECK(wilson_interval(0, 10, 0.95)->high == Approx(0.277533).margin(1e-5));
  CHECK_FALSE(wilson_interval(0, 0, 0.95).has_value());
  CHECK(sample_size_for(0.5, 0.05, 0.95) == 385);  // the textbook number
}

TEST_CASE("the worked example of Olofsson et al. (2014)", "[core][assess]") {
  const ErrorMatrix sample =
      matrix_of({{66, 0, 5, 4}, {0, 55, 8, 12}, {1, 0, 153, 11}, {2, 1, 9, 313}});
  const std::vector<double> mapped{0.020, 0.015, 0.320, 0.645};
  const auto a = area_adjusted(sample, mapped);
  REQUIRE(a.has_value());
  CHECK(a->overall.value == Approx(0.95).margin(0.005));
  const double users[] = {0.88, 0.73, 0.93, 0.96}, producers[] = {0.75, 0.85, 0.93, 0.96};
  for (std::size_t c = 0; c < 4; ++c) {
    CHECK(a->classes[c].users->value == Approx(users[c]).margin(0.005));
    CHECK(a->classes[c].producers->value == Approx(producers[c]).margin(0.005));
  }
  CHECK(a->classes[0].area.value * 10'000'000 == Approx(235'086).margin(1));
  CHECK(*a->classes[0].area.standard_error > 0.0034);
  CHECK(*a->classes[0].area.standard_error < 0.0035);
  // The printed half-widths at 95 %: overall 0.02, user's of deforestation 0.07, producer's 0.21.
  CHECK(1.96 * *a->overall.standard_error == Approx(0.02).margin(0.005));
  CHECK(1.96 * *a->classes[0].users->standard_error == Approx(0.07).margin(0.005));
  CHECK(1.96 * *a->classes[0].producers->standard_error == Approx(0.21).margin(0.005));
}

TEST_CASE("the sample size of Olofsson et al. (2014), section 5.1", "[core][assess]") {
  // User's accuracies 0.70 0.60 0.90 0.95 and a standard error of 0.01 ask for 641 pixels.
  const ErrorMatrix guess =
      matrix_of({{70, 30, 0, 0}, {0, 60, 40, 0}, {0, 0, 90, 10}, {5, 0, 0, 95}});
  CHECK(stratified_sample_size(guess, {0.020, 0.015, 0.320, 0.645}, 0.01 * normal_z(0.95), 0.95) ==
        641);
}

TEST_CASE("areas cannot be estimated from classes without samples", "[core][assess]") {
  CHECK_FALSE(area_adjusted(matrix_of({{5, 1}, {0, 0}}), {0.5, 0.5}).has_value());
  const auto one = area_adjusted(matrix_of({{5, 1}, {0, 1}}), {0.5, 0.5});
  CHECK(one->overall.value == Approx(0.5 * 5 / 6 + 0.5));
  CHECK_FALSE(one->overall.standard_error.has_value());
  // A class that is nowhere on the map needs no sample.
  CHECK(area_adjusted(matrix_of({{5, 1}, {0, 0}}), {1.0, 0.0}).has_value());
}

TEST_CASE("two maps are compared by kappa and by McNemar's test", "[core][assess]") {
  const auto z = kappa_difference({0.8, 0.0009, {}}, {0.7, 0.0016, {}});
  CHECK(z->statistic == Approx(2.0));
  CHECK(z->p == Approx(0.0455).margin(1e-4));
  CHECK_FALSE(kappa_difference({1, 0, {}}, {1, 0, {}}).has_value());
  CHECK(mcnemar(60, 30)->statistic == Approx(10.0));
  CHECK(mcnemar(60, 30)->p == Approx(0.0015654).margin(1e-6));
  // 12 pixels are few: the exact two-sided p is 2 (1 + 12 + 66) / 4096.
  CHECK(mcnemar(10, 2)->p == Approx(158.0 / 4096));
  CHECK(mcnemar(3, 3)->p == 1.0);
  CHECK_FALSE(mcnemar(0, 0).has_value());
}
