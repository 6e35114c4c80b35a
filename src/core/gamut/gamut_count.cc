#include "core/gamut/gamut_count.h"

#include <algorithm>
#include <array>

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/gamut/gamut_count.cc"
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
  // Of a value that is not a number the second is taken. Two of each, not to wait for the one
  // before.
  auto least = hn::Set(d, low), most = hn::Set(d, high), also_least = least, also_most = most;
  std::size_t i = 0;
  for (; i + 2 * lanes <= n; i += 2 * lanes) {
    const auto v = hn::LoadU(d, values + i), next = hn::LoadU(d, values + i + lanes);
    least = hn::Min(v, least);
    most = hn::Max(v, most);
    also_least = hn::Min(next, also_least);
    also_most = hn::Max(next, also_most);
  }
  least = hn::Min(least, also_least);
  most = hn::Max(most, also_most);
  bool some =
      !hn::AllFalse(d, hn::Or(hn::Lt(least, hn::Set(d, low)), hn::Gt(most, hn::Set(d, high))));
  for (; i < n; ++i) some = some || values[i] < low || values[i] > high;
  return some;
}

// How far each of n values lies outside, in units of `unit`; the larger of that and what is there.
void raise_excess(const float* values, std::size_t n, float low, float high, float unit,
                  float* excess) {
  const hn::CappedTag<float, kPlanePadding> d;
  const auto lowest = hn::Set(d, low), highest = hn::Set(d, high), per_unit = hn::Set(d, 1 / unit);
  for (std::size_t i = 0; i < n; i += hn::Lanes(d)) {
    const auto v = hn::LoadU(d, values + i);
    const auto over = hn::Max(hn::Sub(v, highest), hn::Sub(lowest, v));
    // Of a value that is not a number the second is taken.
    hn::StoreU(hn::Max(hn::Mul(over, per_unit), hn::LoadU(d, excess + i)), d, excess + i);
  }
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {
namespace {
HWY_EXPORT(some_outside);
HWY_EXPORT(raise_excess);
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
  std::array<float, kBlockPixels> excess{};
  for (std::size_t c = 0; c < planes; ++c) {
    const ChannelInfo& range = stored.space->channels[c];
    HWY_DYNAMIC_DISPATCH(raise_excess)
    (color[c], block.size, static_cast<float>(range.low), static_cast<float>(range.high),
     static_cast<float>((range.high - range.low) / 255), excess.data());
  }
  for (std::size_t i = 0; i < block.size; ++i) {
    const bool leaves = excess[i] > kGamutTolerance && block.counts(i);
    outside += leaves ? 1 : 0;
    largest_excess = std::max(largest_excess, leaves ? excess[i] : 0.0f);
  }
}

GamutCount& GamutCount::operator+=(const GamutCount& other) {
  outside += other.outside;
  largest_excess = std::max(largest_excess, other.largest_excess);
  return *this;
}

}  // namespace chalcedony
#endif
