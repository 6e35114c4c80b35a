// Gives each pixel the class with the highest score. Included once for each instruction set.
#if defined(CHALCEDONY_CORE_LEARN_BEST_CLASS_INL_H_) == defined(HWY_TARGET_TOGGLE)
#ifdef CHALCEDONY_CORE_LEARN_BEST_CLASS_INL_H_
#undef CHALCEDONY_CORE_LEARN_BEST_CLASS_INL_H_
#else
#define CHALCEDONY_CORE_LEARN_BEST_CLASS_INL_H_
#endif

#include <hwy/highway.h>

#include <cstdint>
#include <vector>

#include "core/learn/score_limits.h"
#include "core/pixel/planes.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// `score(d, c, i)` is the vector of scores of class c (0 is the first) for the pixels from i on.
// Ties go to the lowest class; a pixel whose scores are not numbers gets 0, and so does one whose
// best score is below what that class accepts. `far` may be null.
template <class Score>
HWY_INLINE void best_classes(const ScoreLimits& limits, std::size_t n, std::uint8_t* labels,
                             std::uint8_t* far, const Score& score) {
  const std::size_t classes = limits.accepted.size();
  const hn::CappedTag<float, kPlanePadding> d;
  const hn::RebindToSigned<decltype(d)> di;
  const hn::Rebind<std::uint8_t, decltype(d)> d8;
  for (std::size_t i = 0; i < n; i += hn::Lanes(d)) {
    auto best = hn::Set(d, kNoScore), accepted = best;
    auto label = hn::Zero(di), known = hn::Zero(di);
    for (std::size_t c = 0; c < classes; ++c) {
      const auto here = score(d, c, i);
      const auto better = hn::Gt(here, best);
      best = hn::IfThenElse(better, here, best);
      label = hn::IfThenElse(hn::RebindMask(di, better),
                             hn::Set(di, static_cast<std::int32_t>(c + 1)), label);
      accepted = hn::IfThenElse(better, hn::Set(d, limits.accepted[c]), accepted);
      const auto near = hn::RebindMask(di, hn::Ge(here, hn::Set(d, limits.known[c])));
      known = hn::Or(known, hn::IfThenElseZero(near, hn::Set(di, 1)));
    }
    const auto found = hn::RebindMask(di, hn::Gt(best, hn::Set(d, kNoScore)));
    label = hn::IfThenElseZero(hn::RebindMask(di, hn::Ge(best, accepted)), label);
    hn::StoreU(hn::DemoteTo(d8, label), d8, labels + i);
    if (far)
      hn::StoreU(hn::DemoteTo(d8, hn::IfThenElseZero(found, hn::Xor(known, hn::Set(di, 1)))), d8,
                 far + i);
  }
}

// Writes `distance(d, c, i)` for every class and pixel.
template <class Distance>
HWY_INLINE void distances_to_classes(std::size_t n, const std::vector<float*>& planes,
                                     const Distance& distance) {
  const hn::CappedTag<float, kPlanePadding> d;
  for (std::size_t i = 0; i < n; i += hn::Lanes(d))
    for (std::size_t c = 0; c < planes.size(); ++c) hn::StoreU(distance(d, c, i), d, planes[c] + i);
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#endif
