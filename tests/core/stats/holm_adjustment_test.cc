// Probabilities of several tests at once, by hand and by trial.
#include "core/stats/holm_adjustment.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <random>

using namespace chalcedony;

TEST_CASE("p of several tests are raised, the smallest most", "[core][stats]") {
  using Numbers = std::vector<double>;
  CHECK(holm_adjusted({}).empty());
  CHECK(holm_adjusted({0.03}) == Numbers{0.03});
  // 3 x 0.01, 2 x 0.02, 1 x 0.9; in the order given.
  const Numbers three = holm_adjusted({0.9, 0.01, 0.02});
  CHECK(three[0] == Approx(0.9));
  CHECK(three[1] == Approx(0.03));
  CHECK(three[2] == Approx(0.04));
  // None is below one with a smaller p, and none above 1.
  const Numbers close = holm_adjusted({0.021, 0.02, 0.6, 0.7});
  CHECK(close[1] == Approx(0.08));
  CHECK(close[0] == Approx(0.08));
  CHECK(close[2] == Approx(1));
  CHECK(close[3] == Approx(1));
}

TEST_CASE("of tests of nothing, at most the stated part finds something", "[core][stats]") {
  std::mt19937 random(5);
  std::uniform_real_distribution<double> chance(0, 1);
  int raised = 0, plain = 0;
  constexpr int kRuns = 4000;
  for (int run = 0; run < kRuns; ++run) {
    std::vector<double> p(6);
    for (double& one : p) one = chance(random);
    const auto below = [](const std::vector<double>& all) {
      return std::any_of(all.begin(), all.end(), [](double one) { return one < 0.05; });
    };
    plain += below(p);
    raised += below(holm_adjusted(p));
  }
  CHECK(plain > 0.2 * kRuns);
  CHECK(raised < 0.06 * kRuns);
}
