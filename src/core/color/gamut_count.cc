#include "core/color/gamut_count.h"

#include <algorithm>

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/color/gamut_count.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// Whether some of n values lies outside.
bool some_outside(const float* values, std::size_t n, float low, float high) {
  const hn::CappedTag<float, kPlanePadding> d;
  const std::size_t lanes = hn::Lanes(d);
  const auto lowest = hn::Set(d, low), highest = hn::Set(d, high);
  auto outside = hn::Lt(lowest, lowest);  // none yet
  std::size_t i = 0;
  for (; i + lanes <= n; i += lanes) {
    const auto v = hn::LoadU(d, values + i);
    outside = hn::Or(outside, hn::Or(hn::Lt(v, lowest), hn::Gt(v, highest)));
  }
  bool some = !hn::AllFalse(d, outside);
  for (; i < n; ++i) some = some || values[i] < low || values[i] > high;
  return some;
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {
namespace {
HWY_EXPORT(some_outside);
}  // namespace

void GamutCount::add(const Block& block, const ConstPlanes& color, const PictureInfo& stored) {
  if (stored.is_float() && !stored.space->is_rgb) return;
  const std::size_t planes = stored.color_channels() == 1 ? 1 : stored.space->channel_count;
  bool some_leave = false;
  for (std::size_t c = 0; c < planes; ++c)
    some_leave =
        some_leave || HWY_DYNAMIC_DISPATCH(some_outside)(
                          color[c], block.size, static_cast<float>(stored.space->channels[c].low),
                          static_cast<float>(stored.space->channels[c].high));
  if (!some_leave) return;
  for (std::size_t i = 0; i < block.size; ++i) {
    float excess = 0;
    for (std::size_t c = 0; c < planes; ++c) {
      const ChannelInfo& range = stored.space->channels[c];
      const float v = color[c][i];
      const float over =
          std::max(v - static_cast<float>(range.high), static_cast<float>(range.low) - v);
      excess = std::max(excess, over * static_cast<float>(255 / (range.high - range.low)));
    }
    if (!(excess > kGamutTolerance) || !block.counts(i)) continue;
    ++outside;
    largest_excess = std::max(largest_excess, excess);
  }
}

GamutCount& GamutCount::operator+=(const GamutCount& other) {
  outside += other.outside;
  largest_excess = std::max(largest_excess, other.largest_excess);
  return *this;
}

}  // namespace chalcedony
#endif
