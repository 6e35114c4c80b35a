#include "core/stats/holm_adjustment.h"

#include <algorithm>
#include <cstddef>
#include <numeric>

namespace chalcedony {

std::vector<double> holm_adjusted(const std::vector<double>& p) {
  std::vector<std::size_t> order(p.size());
  std::iota(order.begin(), order.end(), std::size_t{0});
  std::sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return p[a] < p[b]; });
  std::vector<double> adjusted(p.size());
  double before = 0;
  for (std::size_t k = 0; k < order.size(); ++k) {
    before = std::max(before, static_cast<double>(p.size() - k) * p[order[k]]);
    adjusted[order[k]] = std::min(1.0, before);
  }
  return adjusted;
}

}  // namespace chalcedony
