// A row of floats taken a vector at a time, and its rest one by one. Included once for each
// instruction set.
#if defined(CHALCEDONY_CORE_VECTOR_ROW_INL_H_) == defined(HWY_TARGET_TOGGLE)
#ifdef CHALCEDONY_CORE_VECTOR_ROW_INL_H_
#undef CHALCEDONY_CORE_VECTOR_ROW_INL_H_
#else
#define CHALCEDONY_CORE_VECTOR_ROW_INL_H_
#endif

#include <hwy/highway.h>

#include <cstddef>

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// Calls `work(d, x)` for the floats from place x on, as many as a vector of d has, until all n are
// done.
template <class Work>
HWY_INLINE void over_row(std::size_t n, const Work& work) {
  const hn::ScalableTag<float> d;
  const hn::CappedTag<float, 1> one;
  std::size_t x = 0;
  for (; x + hn::Lanes(d) <= n; x += hn::Lanes(d)) work(d, x);
  for (; x < n; ++x) work(one, x);
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#endif
