#include "core/cluster/regrouping.h"

#include <algorithm>
#include <utility>
#include <vector>

#include "core/cluster/starting_centers.h"

namespace chalcedony {
namespace {

constexpr std::size_t kWaysAtOnce = 8;
constexpr unsigned kStepsWithOneMore = 3;
constexpr double kWorth = 1 - 1e-4;  // of what was left before

/// What is within two groups more when they are one.
double cost_of_joining(const CenterMover& mover, const std::vector<double>& weights, std::size_t a,
                       std::size_t b, std::size_t dimensions) {
  const double* const centers = mover.centers().data();
  return weights[a] * weights[b] / std::max(1e-300, weights[a] + weights[b]) *
         squared_distance(centers + a * dimensions, centers + b * dimensions, dimensions);
}

/// The two groups become one that are cheapest to join.
Centers with_two_joined(const CenterMover& mover, std::size_t dimensions) {
  const std::vector<double> weights = mover.weights();
  std::pair<std::size_t, std::size_t> cheapest;
  double least = 1e300;
  for (std::size_t a = 0; a < weights.size(); ++a)
    for (std::size_t b = a + 1; b < weights.size(); ++b) {
      const double cost = cost_of_joining(mover, weights, a, b, dimensions);
      if (cost >= least) continue;
      least = cost;
      cheapest = {a, b};
    }
  const auto [to, gone] = cheapest;
  Centers joined = mover.centers();
  const double both = std::max(1e-300, weights[to] + weights[gone]);
  for (std::size_t f = 0; f < dimensions; ++f) {
    double& mean = joined[to * dimensions + f];
    mean = (weights[to] * mean + weights[gone] * joined[gone * dimensions + f]) / both;
  }
  const auto first = joined.begin() + static_cast<std::ptrdiff_t>(gone * dimensions);
  joined.erase(first, first + static_cast<std::ptrdiff_t>(dimensions));
  return joined;
}

DrawnGroups with_another_place(const DrawnPoints& points, const Centers& centers,
                               const MovementLimit& limit, std::uint64_t seed) {
  const Points& drawn = points.drawn();
  CenterMover more(drawn, points.drawn_runs(), with_one_more(drawn, centers, seed));
  more.run(kStepsWithOneMore, limit.least);
  return move_through_drawn(points, with_two_joined(more, drawn.dimensions()), limit);
}

bool leaves_less(const DrawnGroups& a, const DrawnGroups& b) {
  return a.sum_of_squares < b.sum_of_squares;
}

}  // namespace

DrawnGroups move_through_drawn(const DrawnPoints& points, Centers start,
                               const MovementLimit& limit) {
  CenterMover mover(points.drawn(), points.drawn_runs(), std::move(start));
  const Movement movement = mover.run(limit.most_iterations, limit.least);
  return {mover.centers(), mover.sum_of_squares(), movement};
}

DrawnGroups regrouped(const DrawnPoints& points, const DrawnGroups& from,
                      const MovementLimit& limit, std::uint64_t seed) {
  DrawnGroups best = from;
  while (best.sum_of_squares > 0) {
    std::vector<DrawnGroups> ways(kWaysAtOnce);
    for_each_start(kWaysAtOnce, [&](std::size_t way) {
      ways[way] = with_another_place(points, best.centers, limit, seed + way);
    });
    seed += kWaysAtOnce;
    const DrawnGroups& least = *std::min_element(ways.begin(), ways.end(), leaves_less);
    if (least.sum_of_squares >= kWorth * best.sum_of_squares) break;
    best = least;
  }
  return best;
}

}  // namespace chalcedony
