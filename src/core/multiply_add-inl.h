// A product and a sum that are rounded once, as IEEE 754-2008 says, by every instruction set: where
// the processor has no such operation, the C library computes it. Included once for each
// instruction set.
#if defined(CHALCEDONY_CORE_MULTIPLY_ADD_INL_H_) == defined(HWY_TARGET_TOGGLE)
#ifdef CHALCEDONY_CORE_MULTIPLY_ADD_INL_H_
#undef CHALCEDONY_CORE_MULTIPLY_ADD_INL_H_
#else
#define CHALCEDONY_CORE_MULTIPLY_ADD_INL_H_
#endif

#include <hwy/highway.h>

#include <cmath>

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// a b + c, of vectors of float or double.
template <class V>
HWY_INLINE V multiply_add(V a, V b, V c) {
#if HWY_TARGET == HWY_SCALAR
  return V(std::fma(a.raw, b.raw, c.raw));
#else
  return hn::MulAdd(a, b, c);
#endif
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#endif
