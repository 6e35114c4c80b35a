#include "core/filter/symmetric_sums.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/filter/symmetric_sums.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/vector_row-inl.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// The sums of as many places as a vector of D has.
template <class D>
HWY_INLINE void symmetric_sum(D d, const float* middle, std::ptrdiff_t step,
                              const std::vector<float>& weights, float* out) {
  auto sum = hn::Mul(hn::Set(d, weights[0]), hn::LoadU(d, middle));
  const float *before = middle, *after = middle;
  for (std::size_t w = 1; w < weights.size(); ++w) {
    before -= step;
    after += step;
    sum = hn::Add(
        sum, hn::Mul(hn::Set(d, weights[w]), hn::Add(hn::LoadU(d, before), hn::LoadU(d, after))));
  }
  hn::StoreU(sum, d, out);
}

void sums_of_row(const float* middle, std::ptrdiff_t step, const std::vector<float>& weights,
                 std::size_t n, float* out) {
  over_row(n, [&](auto d, std::size_t x)
                  HWY_ATTR { symmetric_sum(d, middle + x, step, weights, out + x); });
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {

HWY_EXPORT(sums_of_row);

void symmetric_sums(const float* middle, std::ptrdiff_t step, const std::vector<float>& weights,
                    std::size_t n, float* out) {
  HWY_DYNAMIC_DISPATCH(sums_of_row)(middle, step, weights, n, out);
}

}  // namespace chalcedony
#endif
