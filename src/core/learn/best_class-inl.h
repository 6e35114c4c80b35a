// Gives each pixel the class with the highest score. Included once for each instruction set.
#if defined(CHALCEDONY_CORE_LEARN_BEST_CLASS_INL_H_) == defined(HWY_TARGET_TOGGLE)
#ifdef CHALCEDONY_CORE_LEARN_BEST_CLASS_INL_H_
#undef CHALCEDONY_CORE_LEARN_BEST_CLASS_INL_H_
#else
#define CHALCEDONY_CORE_LEARN_BEST_CLASS_INL_H_
#endif

#include <hwy/highway.h>

#include <cstdint>

#include "core/pixel/planes.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// `score(d, c, i)` is the vector of scores of class c (0 is the first) for the pixels from i on.
// Ties go to the lowest class; a pixel whose scores are not numbers gets 0.
template <class Score>
HWY_INLINE void best_classes(std::size_t classes, std::size_t n, std::uint8_t* labels,
                             const Score& score) {
  const hn::CappedTag<float, kPlanePadding> d;
  const hn::RebindToSigned<decltype(d)> di;
  const hn::Rebind<std::uint8_t, decltype(d)> d8;
  for (std::size_t i = 0; i < n; i += hn::Lanes(d)) {
    auto best = hn::Set(d, -3.4e38f);
    auto label = hn::Zero(di);
    for (std::size_t c = 0; c < classes; ++c) {
      const auto here = score(d, c, i);
      const auto better = hn::Gt(here, best);
      best = hn::IfThenElse(better, here, best);
      label = hn::IfThenElse(hn::RebindMask(di, better),
                             hn::Set(di, static_cast<std::int32_t>(c + 1)), label);
    }
    hn::StoreU(hn::DemoteTo(d8, label), d8, labels + i);
  }
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#endif
