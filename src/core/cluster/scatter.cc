#include "core/cluster/scatter.h"

#include "core/cluster/point_sums.h"

namespace chalcedony {
namespace {

/// Features times weights, and the weights.
struct WeightedSums {
  std::vector<double> sums;

  WeightedSums& operator+=(const WeightedSums& later) {
    for (std::size_t s = 0; s < sums.size(); ++s) sums[s] += later.sums[s];
    return *this;
  }
};

}  // namespace

Scatter scatter_of(const Points& points) {
  const std::size_t dimensions = points.dimensions();
  const WeightedSums none{std::vector<double>(dimensions + 1)};
  Scatter out;
  out.mean = sum_over_chunks(points.size, none, [&](std::size_t begin, std::size_t end) {
               WeightedSums sums = none;
               add_weighted(points, begin, end, sums.sums.data());
               return sums;
             }).sums;
  out.weight = out.mean.back();
  out.mean.pop_back();
  for (double& mean : out.mean) mean /= out.weight;
  out.sum_of_squares = sum_over_chunks(points.size, 0.0, [&](std::size_t begin, std::size_t end) {
    return weighted_squares(points, begin, end, out.mean.data());
  });
  return out;
}

}  // namespace chalcedony
