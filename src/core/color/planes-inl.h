// Runs one vector operation over three planes. Included once for each instruction set.
#if defined(CHALCEDONY_CORE_COLOR_PLANES_INL_H_) == defined(HWY_TARGET_TOGGLE)
#ifdef CHALCEDONY_CORE_COLOR_PLANES_INL_H_
#undef CHALCEDONY_CORE_COLOR_PLANES_INL_H_
#else
#define CHALCEDONY_CORE_COLOR_PLANES_INL_H_
#endif

#include <hwy/highway.h>

#include "core/planes.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// `op(d, a, b, c)` replaces three vectors in place. Reads and writes up to the padding, so there
// is no tail whose arithmetic could differ.
template <class Op>
HWY_INLINE void map_planes(const ConstPlanes& in, const Planes& out, std::size_t n, const Op& op) {
  const hn::CappedTag<float, kPlanePadding> d;
  for (std::size_t i = 0; i < n; i += hn::Lanes(d)) {
    auto a = hn::LoadU(d, in[0] + i);
    auto b = hn::LoadU(d, in[1] + i);
    auto c = hn::LoadU(d, in[2] + i);
    op(d, a, b, c);
    hn::StoreU(a, d, out[0] + i);
    hn::StoreU(b, d, out[1] + i);
    hn::StoreU(c, d, out[2] + i);
  }
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#endif
