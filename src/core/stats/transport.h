// The cheapest way to turn one distribution into another: the earth mover's distance.
#ifndef CHALCEDONY_CORE_STATS_TRANSPORT_H_
#define CHALCEDONY_CORE_STATS_TRANSPORT_H_

#include <cstddef>
#include <vector>

namespace chalcedony {

/// How much goes from an entry of the first distribution to one of the second.
struct Flow {
  std::size_t from = 0;
  std::size_t to = 0;
  double amount = 0;
};

struct TransportPlan {
  double cost = 0;          // amounts times costs
  std::vector<Flow> flows;  // by `from`, then by `to`; their amounts sum to 1
};

/// The cheapest plan; both distributions are first divided by their sums.
///
/// Shape     costs[i * second.size() + j] is the cost of moving 1 from entry i to entry j
/// Range     weights and costs at least 0, both sums above 0
/// Accuracy  exact but for rounding: shortest paths that improve a flow, with potentials
/// Source    Rubner, Tomasi and Guibas (2000), Int. J. Computer Vision 40(2), 99-121, for the
///           distance; Edmonds and Karp (1972), J. ACM 19(2), 248-264, for the method
TransportPlan cheapest_transport(const std::vector<double>& first,
                                 const std::vector<double>& second,
                                 const std::vector<double>& costs);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_STATS_TRANSPORT_H_
