#include "core/learn/explanation.h"

#include <algorithm>
#include <numeric>

namespace chalcedony {

std::vector<std::size_t> ranking_of(const Explanation& explanation) {
  std::vector<std::size_t> order(explanation.classes.size());
  std::iota(order.begin(), order.end(), std::size_t{0});
  std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
    const ClassExplanation &first = explanation.classes[a], &second = explanation.classes[b];
    const bool in = first.inside.value_or(true), other_in = second.inside.value_or(true);
    return in != other_in ? in : first.score > second.score;
  });
  return order;
}

}  // namespace chalcedony
