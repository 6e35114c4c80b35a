#include "core/cluster/point_moments.h"

#include <algorithm>
#include <limits>

#include "core/cluster/labeled_blocks.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/cluster/point_moments.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/cluster/point_math-inl.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// The range of n values: each but for those that are put infinitely far by `beyond`, else 0. The
// least and the most of some are the same for every width of vectors.
HWY_INLINE void widen(const float* values, const float* beyond, std::size_t n, float& smallest,
                      float& largest) {
  const hn::CappedTag<float, 16> d;
  auto low = hn::Set(d, smallest), high = hn::Set(d, largest);
  std::size_t k = 0;
  for (; k + hn::Lanes(d) <= n; k += hn::Lanes(d)) {
    const auto v = hn::LoadU(d, values + k), away = hn::LoadU(d, beyond + k);
    low = hn::Min(low, hn::Add(v, away));
    high = hn::Max(high, hn::Sub(v, away));
  }
  smallest = hn::GetLane(hn::MinOfLanes(d, low));
  largest = hn::GetLane(hn::MaxOfLanes(d, high));
  for (; k < n; ++k) {
    smallest = std::min(smallest, values[k] + beyond[k]);
    largest = std::max(largest, values[k] - beyond[k]);
  }
}

// At most kLabeledAtOnce points, of which those count that have the label.
void add_labeled_moments(const Points& points, const std::uint8_t* labels, std::uint8_t label,
                         std::size_t begin, std::size_t end, PointMoments& to) {
  HWY_ALIGN double own[kLabeledAtOnce], times[kLabeledAtOnce];
  const std::size_t n = end - begin;
  weights_of_label(points.weights + begin, labels + begin, label, n, own);
  to.weight += sum_in_parts(n, [&](std::size_t k) { return own[k]; });
  float beyond[kLabeledAtOnce];
  for (std::size_t k = 0; k < n; ++k)
    beyond[k] = own[k] > 0 ? 0 : std::numeric_limits<float>::infinity();
  std::size_t product = 0;
  for (std::size_t f = 0; f < points.dimensions(); ++f) {
    const float* const values = points.features[f] + begin;
    for (std::size_t k = 0; k < n; ++k) times[k] = own[k] * static_cast<double>(values[k]);
    to.sum[f] += sum_in_parts(n, [&](std::size_t k) { return times[k]; });
    for (std::size_t g = f; g < points.dimensions(); ++g) {
      const float* const others = points.features[g] + begin;
      to.products[product++] +=
          sum_in_parts(n, [&](std::size_t k) { return times[k] * static_cast<double>(others[k]); });
    }
    widen(values, beyond, n, to.smallest[f], to.largest[f]);
  }
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {
namespace {
HWY_EXPORT(add_labeled_moments);
}  // namespace

void add_moments_by_label(const Points& points, const std::uint8_t* labels, std::size_t begin,
                          std::size_t end, std::vector<PointMoments>& moments) {
  for_each_labeled_block(labels, begin, end,
                         [&](std::uint8_t label, std::size_t first, std::size_t last) {
                           HWY_DYNAMIC_DISPATCH(add_labeled_moments)
                           (points, labels, label, first, last, moments[label - std::size_t{1}]);
                         });
}

}  // namespace chalcedony
#endif
