#include "core/stats/transport.h"

#include <algorithm>
#include <limits>
#include <numeric>

namespace chalcedony {
namespace {

constexpr double kInfinite = std::numeric_limits<double>::infinity();
constexpr double kNothing = 1e-13;  // of the whole; what is left below it is rounding

std::vector<double> shares_of(const std::vector<double>& weights) {
  const double sum = std::accumulate(weights.begin(), weights.end(), 0.0);
  std::vector<double> shares;
  for (const double weight : weights) shares.push_back(weight / sum);
  return shares;
}

/// A flow that is made larger along the cheapest path until all has moved. Nodes are the entries of
/// the first distribution, then those of the second.
class Transport {
 public:
  Transport(const std::vector<double>& first, const std::vector<double>& second,
            const std::vector<double>& costs)
      : supply_(shares_of(first)),
        demand_(shares_of(second)),
        costs_(costs),
        flow_(costs.size()),
        potential_(supply_.size() + demand_.size()) {}

  TransportPlan solve() {
    while (find_paths()) push_along_path();
    TransportPlan plan;
    for (std::size_t i = 0; i < supply_.size(); ++i)
      for (std::size_t j = 0; j < demand_.size(); ++j) {
        const double amount = flow_[edge(i, j)];
        if (amount <= kNothing) continue;
        plan.flows.push_back({i, j, amount});
        plan.cost += amount * costs_[edge(i, j)];
      }
    return plan;
  }

 private:
  std::size_t edge(std::size_t i, std::size_t j) const { return i * demand_.size() + j; }
  std::size_t nodes() const { return potential_.size(); }
  std::size_t node_of_demand(std::size_t j) const { return supply_.size() + j; }

  /// Shortest paths from all entries with something left (Dijkstra 1959, on costs that potentials
  /// keep from being negative). False when nothing is left to move.
  bool find_paths() {
    distance_.assign(nodes(), kInfinite);
    before_.assign(nodes(), nodes());
    std::vector<bool> done(nodes());
    for (std::size_t i = 0; i < supply_.size(); ++i)
      if (supply_[i] > kNothing) distance_[i] = 0;
    target_ = nodes();
    while (true) {
      std::size_t nearest = nodes();
      for (std::size_t v = 0; v < nodes(); ++v)
        if (!done[v] && distance_[v] < kInfinite &&
            (nearest == nodes() || distance_[v] < distance_[nearest]))
          nearest = v;
      if (nearest == nodes()) return false;
      done[nearest] = true;
      if (nearest >= supply_.size() && demand_[nearest - supply_.size()] > kNothing) {
        target_ = nearest;
        break;
      }
      relax(nearest);
    }
    for (std::size_t v = 0; v < nodes(); ++v)
      potential_[v] += std::min(distance_[v], distance_[target_]);
    return true;
  }

  void relax(std::size_t v) {
    if (v < supply_.size()) {
      for (std::size_t j = 0; j < demand_.size(); ++j)
        reach(v, node_of_demand(j), costs_[edge(v, j)]);
      return;
    }
    const std::size_t j = v - supply_.size();
    for (std::size_t i = 0; i < supply_.size(); ++i)
      if (flow_[edge(i, j)] > 0) reach(v, i, -costs_[edge(i, j)]);
  }

  void reach(std::size_t from, std::size_t to, double cost) {
    // Rounding may leave a little less than nothing.
    const double step = std::max(0.0, cost + potential_[from] - potential_[to]);
    if (distance_[from] + step >= distance_[to]) return;
    distance_[to] = distance_[from] + step;
    before_[to] = from;
  }

  void push_along_path() {
    double amount = demand_[target_ - supply_.size()];
    std::size_t v = target_;
    for (; before_[v] != nodes(); v = before_[v])
      if (v < supply_.size())
        amount = std::min(amount, flow_[edge(v, before_[v] - supply_.size())]);
    amount = std::min(amount, supply_[v]);
    supply_[v] -= amount;
    demand_[target_ - supply_.size()] -= amount;
    for (v = target_; before_[v] != nodes(); v = before_[v]) {
      if (v >= supply_.size()) {
        flow_[edge(before_[v], v - supply_.size())] += amount;
      } else {
        flow_[edge(v, before_[v] - supply_.size())] -= amount;
      }
    }
  }

  std::vector<double> supply_, demand_;
  const std::vector<double>& costs_;
  std::vector<double> flow_;
  std::vector<double> potential_, distance_;
  std::vector<std::size_t> before_;
  std::size_t target_ = 0;
};

}  // namespace

TransportPlan cheapest_transport(const std::vector<double>& first,
                                 const std::vector<double>& second,
                                 const std::vector<double>& costs) {
  return Transport(first, second, costs).solve();
}

}  // namespace chalcedony
