#include "core/stats/transport.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <numeric>
#include <random>

using namespace chalcedony;

namespace {

std::vector<double> random_numbers(std::size_t count, unsigned seed) {
  std::mt19937 random(seed);
  std::uniform_real_distribution<double> number(0.01, 1);
  std::vector<double> numbers(count);
  for (double& n : numbers) n = number(random);
  return numbers;
}

}  // namespace

TEST_CASE("on a line, transport costs what the cumulative shares differ", "[core][transport]") {
  for (unsigned seed = 1; seed <= 20; ++seed) {
    const std::size_t n = 3 + seed % 7;
    const auto first = random_numbers(n, seed), second = random_numbers(n, 100 + seed);
    std::vector<double> costs;
    for (std::size_t i = 0; i < n; ++i)
      for (std::size_t j = 0; j < n; ++j)
        costs.push_back(std::abs(static_cast<double>(i) - static_cast<double>(j)));
    const double sum1 = std::accumulate(first.begin(), first.end(), 0.0);
    const double sum2 = std::accumulate(second.begin(), second.end(), 0.0);
    double expected = 0, behind = 0;
    for (std::size_t i = 0; i < n; ++i) {
      behind += first[i] / sum1 - second[i] / sum2;
      expected += std::abs(behind);
    }
    CHECK(cheapest_transport(first, second, costs).cost == Approx(expected).epsilon(1e-9));
  }
}

TEST_CASE("with equal weights transport is the best of all assignments", "[core][transport]") {
  for (unsigned seed = 1; seed <= 10; ++seed) {
    constexpr std::size_t n = 6;
    const std::vector<double> ones(n, 1);
    const auto costs = random_numbers(n * n, seed);
    std::vector<std::size_t> order(n);
    std::iota(order.begin(), order.end(), std::size_t{0});
    double best = 1e300;
    do {
      double cost = 0;
      for (std::size_t i = 0; i < n; ++i) cost += costs[i * n + order[i]] / n;
      best = std::min(best, cost);
    } while (std::next_permutation(order.begin(), order.end()));
    CHECK(cheapest_transport(ones, ones, costs).cost == Approx(best).epsilon(1e-9));
  }
}

TEST_CASE("flows empty the first distribution and fill the second", "[core][transport]") {
  const std::vector<double> first{3, 0, 5, 2}, second{1, 6, 1};
  const auto costs = random_numbers(12, 7);
  const TransportPlan plan = cheapest_transport(first, second, costs);
  std::vector<double> out(4), in(3);
  double cost = 0;
  for (const Flow& flow : plan.flows) {
    out[flow.from] += flow.amount;
    in[flow.to] += flow.amount;
    cost += flow.amount * costs[flow.from * 3 + flow.to];
  }
  for (std::size_t i = 0; i < 4; ++i) CHECK(out[i] == Approx(first[i] / 10).margin(1e-12));
  for (std::size_t j = 0; j < 3; ++j) CHECK(in[j] == Approx(second[j] / 8).margin(1e-12));
  CHECK(plan.cost == Approx(cost));
}

TEST_CASE("what is there already need not move", "[core][transport]") {
  const TransportPlan plan = cheapest_transport({1, 2}, {2, 4}, {0, 9, 9, 0});
  CHECK(plan.cost == Approx(0).margin(1e-12));
  REQUIRE(plan.flows.size() == 2);
  CHECK(plan.flows[1].from == plan.flows[1].to);
}
