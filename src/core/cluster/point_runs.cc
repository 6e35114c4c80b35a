#include "core/cluster/point_runs.h"

#include <algorithm>
#include <cmath>

#include "core/cluster/point_sums.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/cluster/point_runs.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/cluster/point_math-inl.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// The middle between the smallest and the largest of n numbers.
double middle_of(const float* values, std::size_t n) {
  const hn::CappedTag<float, 16> d;
  auto low = hn::Set(d, values[0]), high = low;
  float lowest = values[0], highest = lowest;
  std::size_t i = 0;
  for (; i + hn::Lanes(d) <= n; i += hn::Lanes(d)) {
    const auto v = hn::LoadU(d, values + i);
    low = hn::Min(low, v);
    high = hn::Max(high, v);
  }
  for (; i < n; ++i) {
    lowest = std::min(lowest, values[i]);
    highest = std::max(highest, values[i]);
  }
  lowest = std::min(lowest, hn::GetLane(hn::MinOfLanes(d, low)));
  highest = std::max(highest, hn::GetLane(hn::MaxOfLanes(d, high)));
  return 0.5 * (static_cast<double>(lowest) + static_cast<double>(highest));
}

// The largest squared distance of the points from `begin` to `end` to one place.
double farthest_from(const float* const* features, std::size_t dimensions, const double* place,
                     std::size_t begin, std::size_t end) {
  const hn::CappedTag<double, 8> d;
  auto farthest = hn::Zero(d);
  std::size_t i = begin;
  for (; i + hn::Lanes(d) <= end; i += hn::Lanes(d))
    farthest = hn::Max(farthest, squared_distances(d, features, dimensions, place, i));
  double most = hn::GetLane(hn::MaxOfLanes(d, farthest));
  for (; i < end; ++i) most = std::max(most, squared_distance(features, dimensions, place, i));
  return most;
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {
namespace {

HWY_EXPORT(middle_of);
HWY_EXPORT(farthest_from);

}  // namespace

PointRuns::PointRuns(const Points& points) : dimensions_(points.dimensions()) {
  const std::size_t runs = (points.size + kRunPoints - 1) / kRunPoints;
  middles_.resize(runs * dimensions_);
  radii_.resize(runs);
  sums_.resize(runs * (dimensions_ + 1));
  for_each_chunk(points.size, [&](std::size_t, std::size_t begin, std::size_t end) {
    for (std::size_t at = begin; at < end; at += kRunPoints) {
      const std::size_t run = at / kRunPoints, size = std::min(kRunPoints, end - at);
      double* const middle = middles_.data() + run * dimensions_;
      for (std::size_t f = 0; f < dimensions_; ++f)
        middle[f] = HWY_DYNAMIC_DISPATCH(middle_of)(points.features[f] + at, size);
      radii_[run] = std::sqrt(HWY_DYNAMIC_DISPATCH(farthest_from)(
          points.features.data(), dimensions_, middle, at, at + size));
      add_weighted(points, at, at + size, sums_.data() + run * (dimensions_ + 1));
    }
  });
}

}  // namespace chalcedony
#endif
