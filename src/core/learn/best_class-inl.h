// Gives each pixel the class with the highest score. Included once for each instruction set.
#if defined(CHALCEDONY_CORE_LEARN_BEST_CLASS_INL_H_) == defined(HWY_TARGET_TOGGLE)
#ifdef CHALCEDONY_CORE_LEARN_BEST_CLASS_INL_H_
#undef CHALCEDONY_CORE_LEARN_BEST_CLASS_INL_H_
#else
#define CHALCEDONY_CORE_LEARN_BEST_CLASS_INL_H_
#endif

#include <hwy/highway.h>

#include <algorithm>
#include <cstdint>
#include <vector>

#include "core/learn/score_limits.h"
#include "core/pixel/label.h"
#include "core/planes.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// `score(d, c, i)` is the vector of scores of class c (0 is the first) for the pixels from i on.
// Ties go to the lowest class; a pixel whose scores are not numbers gets 0, and so does one whose
// best score is below what that class accepts. kRejects: whether classes accept less than all.
// kClaims: whether pixels that several classes accept are contested, for a method in which a class
// accepts or not whatever the others do.
template <bool kRejects, bool kClaims, class Score>
HWY_INLINE void best_classes_of_kind(const ScoreLimits& limits, std::size_t n, Label* labels,
                                     const PixelFlags& flags, const Score& score) {
  const hn::CappedTag<float, kPlanePadding> d;
  const hn::RebindToSigned<decltype(d)> di;
  const hn::Rebind<std::uint8_t, decltype(d)> d8;
  const hn::Rebind<Label, decltype(d)> dl;
  const std::size_t classes = limits.accepted.size();
  const float* const accepts = limits.accepted.data();
  const float* const knows = limits.known.data();
  const auto store_flag = [&](auto mask, std::uint8_t* to) {
    hn::StoreU(hn::DemoteTo(d8, hn::IfThenElseZero(mask, hn::Set(di, 1))), d8, to);
  };
  for (std::size_t i = 0; i < n; i += hn::Lanes(d)) {
    auto best = hn::Set(d, kNoScore), accepted = best, room = best;
    auto label = hn::Zero(di), claims = label;
    for (std::size_t c = 0; c < classes; ++c) {
      const auto here = score(d, c, i);
      const auto better = hn::Gt(here, best);
      best = hn::IfThenElse(better, here, best);
      label = hn::IfThenElse(hn::RebindMask(di, better),
                             hn::Set(di, static_cast<std::int32_t>(c + 1)), label);
      // Not below 0: within the limit of this class.
      room = hn::Max(room, hn::Sub(here, hn::Set(d, knows[c])));
      if constexpr (kRejects) {
        const auto least = hn::Set(d, accepts[c]);
        accepted = hn::IfThenElse(better, least, accepted);
        if constexpr (kClaims)
          claims = hn::Add(
              claims, hn::IfThenElseZero(hn::RebindMask(di, hn::Ge(here, least)), hn::Set(di, 1)));
      }
    }
    const auto found = hn::Gt(best, hn::Set(d, kNoScore));
    if constexpr (kRejects)
      label = hn::IfThenElseZero(hn::RebindMask(di, hn::Ge(best, accepted)), label);
    hn::StoreU(hn::DemoteTo(dl, label), dl, labels + i);
    if (flags.far)
      store_flag(hn::RebindMask(di, hn::And(found, hn::Lt(room, hn::Zero(d)))), flags.far + i);
    if constexpr (kClaims) store_flag(hn::Gt(claims, hn::Set(di, 1)), flags.contested + i);
  }
}

// For methods in which every pixel has one best class.
template <class Score>
HWY_INLINE void best_classes(const ScoreLimits& limits, std::size_t n, Label* labels,
                             const PixelFlags& flags, const Score& score) {
  if (flags.contested) std::fill_n(flags.contested, n, std::uint8_t{0});
  if (limits.rejects) {
    best_classes_of_kind<true, false>(limits, n, labels, flags, score);
  } else {
    best_classes_of_kind<false, false>(limits, n, labels, flags, score);
  }
}

// Calls run(Dimensions<D>()) with the number of features where it is small, so that their loop is
// unrolled and values stay in registers, else with Dimensions<0>().
template <std::size_t D>
struct Dimensions {
  static constexpr std::size_t of(std::size_t features) { return D == 0 ? features : D; }
};
template <class Run>
HWY_INLINE void with_dimensions(std::size_t features, const Run& run) {
  if (features == 1) return run(Dimensions<1>());
  if (features == 2) return run(Dimensions<2>());
  if (features == 3) return run(Dimensions<3>());
  if (features == 4) return run(Dimensions<4>());
  run(Dimensions<0>());
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
