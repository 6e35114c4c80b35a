#include "core/cluster/point_moments.h"

#include <algorithm>

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

// The range of those of n values whose weight is not 0.
HWY_INLINE void widen(const float* values, const double* own, std::size_t n, float& smallest,
                      float& largest) {
  for (std::size_t k = 0; k < n; ++k) {
    smallest = std::min(smallest, own[k] > 0 ? values[k] : smallest);
    largest = std::max(largest, own[k] > 0 ? values[k] : largest);
  }
}

// At most kLabeledAtOnce points, of which those count that have the label.
void add_labeled_moments(const Points& points, const std::uint8_t* labels, std::uint8_t label,
                         std::size_t begin, std::size_t end, PointMoments& to) {
  HWY_ALIGN double own[kLabeledAtOnce], times[kLabeledAtOnce];
  const std::size_t n = end - begin;
  weights_of_label(points.weights + begin, labels + begin, label, n, own);
  to.weight += sum_in_parts(n, [&](std::size_t k) { return own[k]; });
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
    widen(values, own, n, to.smallest[f], to.largest[f]);
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
