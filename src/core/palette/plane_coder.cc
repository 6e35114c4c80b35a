#include "core/palette/plane_coder.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/palette/plane_coder.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/color/vector_math-inl.h"

#ifndef CHALCEDONY_CORE_PALETTE_PLANE_CODER_CC_
#define CHALCEDONY_CORE_PALETTE_PLANE_CODER_CC_
namespace chalcedony {
constexpr float kNoDirection = 127.5f;  // a cosine or sine of 0
}  // namespace chalcedony
#endif

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {

// Cosines and sines of hues; of what has none, the middle.
void code_hues(const float* degrees, std::size_t n, float* cosines, float* sines) {
  const hn::CappedTag<float, kPlanePadding> d;
  const auto middle = hn::Set(d, kNoDirection);
  for (std::size_t i = 0; i < n; i += hn::Lanes(d)) {
    const auto angle = hn::LoadU(d, degrees + i);
    const auto there = hn::Eq(angle, angle);
    auto sine = hn::Zero(d), cosine = hn::Zero(d);
    sine_cosine_degrees(d, hn::IfThenElseZero(there, angle), sine, cosine);
    const auto code = [&](auto part) HWY_ATTR {
      return hn::Add(middle, hn::IfThenElseZero(there, hn::Mul(middle, part)));
    };
    hn::StoreU(code(cosine), d, cosines + i);
    hn::StoreU(code(sine), d, sines + i);
  }
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {

HWY_EXPORT(code_hues);

ConstPlanes PlaneCoder::code(const float* values, std::size_t n, const Planes& out) const {
  std::fill_n(out[2], n, 0.0f);
  if (hue_) {
    HWY_DYNAMIC_DISPATCH(code_hues)(values, n, out[0], out[1]);
    return read_only(out);
  }
  const auto low = static_cast<float>(range_.low);
  const auto factor = static_cast<float>(255 / (range_.high - range_.low));
  float* const __restrict codes = out[0];
  for (std::size_t i = 0; i < n; ++i) codes[i] = (values[i] - low) * factor;
  return {out[0], out[0], out[2]};
}

double PlaneCoder::share(const std::uint8_t* rgb) const {
  if (!hue_) return rgb[0] / 255.0;
  constexpr double kNoHue = 12;  // of kNoDirection: what rounding and opposite hues leave
  const double x = rgb[0] - double{kNoDirection}, y = rgb[1] - double{kNoDirection};
  if (std::hypot(x, y) < kNoHue) return std::nan("");
  const double turn = std::atan2(y, x) / (2 * std::numbers::pi);
  return turn < 0 ? turn + 1 : turn;
}

}  // namespace chalcedony
#endif
