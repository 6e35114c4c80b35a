#include "core/reframe/tapped_line.h"

#include <algorithm>

#include "core/planes.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/reframe/tapped_line.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// kPlanePadding new values.
void take_taps(const float* HWY_RESTRICT in, const std::int32_t* HWY_RESTRICT firsts,
               const float* HWY_RESTRICT weights, std::size_t taps, float* HWY_RESTRICT out) {
  const hn::CappedTag<float, kPlanePadding> d;
  const hn::RebindToSigned<decltype(d)> di;
  for (std::size_t lane = 0; lane < kPlanePadding; lane += hn::Lanes(d)) {
    const auto first = hn::LoadU(di, firsts + lane);
    auto sum = hn::Zero(d);
    for (std::size_t t = 0; t < taps; ++t)
      sum = hn::Add(sum, hn::Mul(hn::LoadU(d, weights + t * kPlanePadding + lane),
                                 hn::GatherIndex(d, in + t, first)));
    hn::StoreU(sum, d, out + lane);
  }
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {

HWY_EXPORT(take_taps);

TappedLine::TappedLine(const std::vector<Taps>& taps) : size_(taps.size()) {
  for (std::size_t begin = 0; begin < size_; begin += kPlanePadding) {
    const std::size_t end = std::min(size_, begin + kPlanePadding);
    std::size_t most = 0;
    for (std::size_t i = begin; i < end; ++i) most = std::max(most, taps[i].weights.size());
    const Group group{firsts_.size(), weights_.size(), most};
    groups_.push_back(group);
    firsts_.resize(firsts_.size() + kPlanePadding);
    weights_.resize(weights_.size() + kPlanePadding * most);
    for (std::size_t i = begin; i < end; ++i) {
      firsts_[group.first + i - begin] = static_cast<std::int32_t>(taps[i].first);
      for (std::size_t t = 0; t < taps[i].weights.size(); ++t)
        weights_[group.weights + t * kPlanePadding + i - begin] = taps[i].weights[t];
    }
  }
}

void TappedLine::run(const float* in, float* out) const {
  for (const Group& group : groups_) {
    HWY_DYNAMIC_DISPATCH(take_taps)
    (in, firsts_.data() + group.first, weights_.data() + group.weights, group.taps, out);
    out += kPlanePadding;
  }
}

}  // namespace chalcedony
#endif
