#include "core/cluster/point_sums.h"

#include <algorithm>

#include "core/cluster/labeled_blocks.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/cluster/point_sums.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/cluster/point_math-inl.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

void add_points(const float* const* features, std::size_t dimensions, const double* weights,
                std::size_t begin, std::size_t end, double* to) {
  const double* const w = weights + begin;
  for (std::size_t f = 0; f < dimensions; ++f) {
    const float* const values = features[f] + begin;
    to[f] += sum_in_parts(end - begin,
                          [&](std::size_t i) { return w[i] * static_cast<double>(values[i]); });
  }
  to[dimensions] += sum_in_parts(end - begin, [&](std::size_t i) { return w[i]; });
}

// At most kLabeledAtOnce points, of which those count that have the label.
void add_labeled_points(const float* const* features, std::size_t dimensions, const double* weights,
                        const std::uint8_t* labels, std::uint8_t label, std::size_t begin,
                        std::size_t end, double* to) {
  HWY_ALIGN double own[kLabeledAtOnce];
  const std::size_t n = end - begin;
  weights_of_label(weights + begin, labels + begin, label, n, own);
  for (std::size_t f = 0; f < dimensions; ++f) {
    const float* const values = features[f] + begin;
    to[f] +=
        sum_in_parts(n, [&](std::size_t k) { return own[k] * static_cast<double>(values[k]); });
  }
  to[dimensions] += sum_in_parts(n, [&](std::size_t k) { return own[k]; });
}

double sum_squares(const float* const* features, std::size_t dimensions, const double* weights,
                   std::size_t begin, std::size_t end, const double* center) {
  // The squares of some points first, as many as are summed up together.
  constexpr std::size_t kAtOnce = 64;
  const hn::CappedTag<double, 8> d;
  double squares[kAtOnce], sum = 0;
  for (std::size_t at = begin; at < end; at += kAtOnce) {
    const std::size_t n = std::min(kAtOnce, end - at);
    std::size_t i = 0;
    for (; i + hn::Lanes(d) <= n; i += hn::Lanes(d))
      hn::StoreU(squared_distances(d, features, dimensions, center, at + i), d, squares + i);
    for (; i < n; ++i) squares[i] = squared_distance(features, dimensions, center, at + i);
    sum += sum_in_parts(n, [&](std::size_t k) { return weights[at + k] * squares[k]; });
  }
  return sum;
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {
namespace {

HWY_EXPORT(add_points);
HWY_EXPORT(add_labeled_points);
HWY_EXPORT(sum_squares);

void add_label(const Points& points, const std::uint8_t* labels, std::uint8_t label,
               std::size_t begin, std::size_t end, double* to) {
  HWY_DYNAMIC_DISPATCH(add_labeled_points)
  (points.features.data(), points.dimensions(), points.weights, labels, label, begin, end, to);
}

}  // namespace

void add_weighted(const Points& points, std::size_t begin, std::size_t end, double* to) {
  HWY_DYNAMIC_DISPATCH(add_points)
  (points.features.data(), points.dimensions(), points.weights, begin, end, to);
}

void add_weighted_by_label(const Points& points, const std::uint8_t* labels, std::size_t begin,
                           std::size_t end, double* to) {
  for_each_labeled_block(
      labels, begin, end, [&](std::uint8_t label, std::size_t first, std::size_t last) {
        add_label(points, labels, label, first, last, to + label * (points.dimensions() + 1));
      });
}

double weighted_squares(const Points& points, std::size_t begin, std::size_t end,
                        const double* center) {
  return HWY_DYNAMIC_DISPATCH(sum_squares)(points.features.data(), points.dimensions(),
                                           points.weights, begin, end, center);
}

}  // namespace chalcedony
#endif
