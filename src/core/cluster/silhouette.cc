#include "core/cluster/silhouette.h"

#include <tbb/parallel_for.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace chalcedony {

Silhouette::Silhouette(const std::vector<float>& points, std::size_t dimensions)
    : count_(points.size() / dimensions), distances_(count_ * count_) {
  tbb::parallel_for(std::size_t{0}, count_, [&](std::size_t i) {
    for (std::size_t j = 0; j < count_; ++j) {
      double sum = 0;
      for (std::size_t f = 0; f < dimensions; ++f) {
        const double step = static_cast<double>(points[i * dimensions + f]) -
                            static_cast<double>(points[j * dimensions + f]);
        sum += step * step;
      }
      distances_[i * count_ + j] = static_cast<float>(std::sqrt(sum));
    }
  });
}

double Silhouette::mean(const std::vector<std::uint8_t>& labels) const {
  std::array<std::size_t, 256> sizes{};
  for (const std::uint8_t label : labels) ++sizes[label];
  std::vector<double> widths(count_);
  tbb::parallel_for(std::size_t{0}, count_, [&](std::size_t i) {
    if (sizes[labels[i]] < 2) return;
    std::array<double, 256> sums{};
    for (std::size_t j = 0; j < count_; ++j)
      sums[labels[j]] += static_cast<double>(distances_[i * count_ + j]);
    const double own = sums[labels[i]] / static_cast<double>(sizes[labels[i]] - 1);
    double next = -1;
    for (std::size_t group = 0; group < sizes.size(); ++group) {
      if (group == labels[i] || sizes[group] == 0) continue;
      const double there = sums[group] / static_cast<double>(sizes[group]);
      if (next < 0 || there < next) next = there;
    }
    const double larger = std::max(own, next);
    if (next >= 0 && larger > 0) widths[i] = (next - own) / larger;
  });
  double sum = 0;
  for (const double width : widths) sum += width;
  return count_ == 0 ? 0 : sum / static_cast<double>(count_);
}

}  // namespace chalcedony
