// hsv, hsl and hwb: hue, and three ways to say how colored and how bright a clipped sRGB color is.
#include "core/color/space.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/color/hue_models.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/color/planes-inl.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {

// All three share the hue hexagon: its sextant comes from the largest of r g b, the place in it
// from the other two (Smith 1978; CSS Color 4, sections 7 and 8).
template <class D, class V>
struct Hexagon {
  V largest, smallest, spread, hue;
  HWY_INLINE Hexagon(D d, V r, V g, V b) {
    largest = hn::Max(r, hn::Max(g, b));
    smallest = hn::Min(r, hn::Min(g, b));
    spread = hn::Sub(largest, smallest);
    const V one = hn::Set(d, 1.0f), full = hn::Set(d, 360.0f);
    const auto gray = hn::Eq(spread, hn::Zero(d));
    const V per_spread = hn::Div(hn::Set(d, 60.0f), hn::IfThenElse(gray, one, spread));
    const V from_red = hn::Mul(hn::Sub(g, b), per_spread);
    const V from_green = hn::Add(hn::Mul(hn::Sub(b, r), per_spread), hn::Set(d, 120.0f));
    const V from_blue = hn::Add(hn::Mul(hn::Sub(r, g), per_spread), hn::Set(d, 240.0f));
    hue = hn::IfThenElse(hn::Eq(largest, r), from_red,
                         hn::IfThenElse(hn::Eq(largest, g), from_green, from_blue));
    hue = hn::IfThenElse(hn::Lt(hue, hn::Zero(d)), hn::Add(hue, full), hue);
    hue = hn::IfThenElse(hn::Ge(hue, full), hn::Zero(d), hue);
  }
};

// The pure color of a hue: each of r g b in 0-1 falls off linearly with its distance, on the hue
// circle, from `center` of that primary.
template <class D, class V>
HWY_INLINE V pure(D d, V hue, float center) {
  const V turn = hn::Set(d, 360.0f);
  V away = hn::Sub(hue, hn::Set(d, center));
  away = hn::Sub(away, hn::Mul(turn, hn::Round(hn::Mul(away, hn::Set(d, 1.0f / 360.0f)))));
  const V level = hn::Sub(hn::Set(d, 2.0f), hn::Mul(hn::Abs(away), hn::Set(d, 1.0f / 60.0f)));
  return hn::Min(hn::Max(level, hn::Zero(d)), hn::Set(d, 1.0f));
}

// smallest + spread * pure color, all in 0-255.
template <class D, class V>
HWY_INLINE void rgb_from_hue(D d, V hue, V smallest, V spread, V& r, V& g, V& b) {
  r = hn::Add(smallest, hn::Mul(spread, pure(d, hue, 0.0f)));
  g = hn::Add(smallest, hn::Mul(spread, pure(d, hue, 120.0f)));
  b = hn::Add(smallest, hn::Mul(spread, pure(d, hue, 240.0f)));
}

constexpr float kToPercent = 100.0f / 255.0f;
constexpr float kFromPercent = 2.55f;

template <class D, class V>
HWY_INLINE V ratio_percent(D d, V part, V whole) {
  const auto none = hn::Le(whole, hn::Zero(d));
  const V safe = hn::IfThenElse(none, hn::Set(d, 1.0f), whole);
  return hn::IfThenElse(none, hn::Zero(d), hn::Div(hn::Mul(part, hn::Set(d, 100.0f)), safe));
}

struct HsvFromRgb {
  template <class D, class V>
  HWY_INLINE void operator()(D d, V& r, V& g, V& b) const {
    const Hexagon<D, V> hexagon(d, r, g, b);
    r = hexagon.hue;
    g = ratio_percent(d, hexagon.spread, hexagon.largest);
    b = hn::Mul(hexagon.largest, hn::Set(d, kToPercent));
  }
};
struct RgbFromHsv {
  template <class D, class V>
  HWY_INLINE void operator()(D d, V& h, V& s, V& v) const {
    const V largest = hn::Mul(v, hn::Set(d, kFromPercent));
    const V spread = hn::Mul(largest, hn::Mul(s, hn::Set(d, 0.01f)));
    rgb_from_hue(d, h, hn::Sub(largest, spread), spread, h, s, v);
  }
};

struct HslFromRgb {
  template <class D, class V>
  HWY_INLINE void operator()(D d, V& r, V& g, V& b) const {
    const Hexagon<D, V> hexagon(d, r, g, b);
    const V sum = hn::Add(hexagon.largest, hexagon.smallest);
    const V room = hn::Sub(hn::Set(d, 255.0f), hn::Abs(hn::Sub(sum, hn::Set(d, 255.0f))));
    r = hexagon.hue;
    g = ratio_percent(d, hexagon.spread, room);
    b = hn::Mul(sum, hn::Set(d, 0.5f * kToPercent));
  }
};
struct RgbFromHsl {
  template <class D, class V>
  HWY_INLINE void operator()(D d, V& h, V& s, V& l) const {
    const V sum = hn::Mul(l, hn::Set(d, 2.0f * kFromPercent));
    const V room = hn::Sub(hn::Set(d, 255.0f), hn::Abs(hn::Sub(sum, hn::Set(d, 255.0f))));
    const V spread = hn::Mul(room, hn::Mul(s, hn::Set(d, 0.01f)));
    const V smallest = hn::Mul(hn::Sub(sum, spread), hn::Set(d, 0.5f));
    rgb_from_hue(d, h, smallest, spread, h, s, l);
  }
};

struct HwbFromRgb {
  template <class D, class V>
  HWY_INLINE void operator()(D d, V& r, V& g, V& b) const {
    const Hexagon<D, V> hexagon(d, r, g, b);
    r = hexagon.hue;
    g = hn::Mul(hexagon.smallest, hn::Set(d, kToPercent));
    b = hn::Sub(hn::Set(d, 100.0f), hn::Mul(hexagon.largest, hn::Set(d, kToPercent)));
  }
};
// Whiteness and blackness that add to more than 100 % give the gray of their ratio (CSS Color 4).
struct RgbFromHwb {
  template <class D, class V>
  HWY_INLINE void operator()(D d, V& h, V& w, V& bl) const {
    const V sum = hn::Max(hn::Add(w, bl), hn::Set(d, 100.0f));
    const V white = hn::Div(hn::Mul(w, hn::Set(d, 255.0f)), sum);
    const V black = hn::Div(hn::Mul(bl, hn::Set(d, 255.0f)), sum);
    const V spread = hn::Max(hn::Sub(hn::Sub(hn::Set(d, 255.0f), black), white), hn::Zero(d));
    rgb_from_hue(d, h, white, spread, h, w, bl);
  }
};

void hsv_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, HsvFromRgb{});
}
void from_hsv_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, RgbFromHsv{});
}
void hsl_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, HslFromRgb{});
}
void from_hsl_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, RgbFromHsl{});
}
void hwb_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, HwbFromRgb{});
}
void from_hwb_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, RgbFromHwb{});
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
#include "core/color/kernel_export.h"
namespace chalcedony {
namespace {
CHALCEDONY_KERNEL(hsv_planes, hsv_from_rgb);
CHALCEDONY_KERNEL(from_hsv_planes, rgb_from_hsv);
CHALCEDONY_KERNEL(hsl_planes, hsl_from_rgb);
CHALCEDONY_KERNEL(from_hsl_planes, rgb_from_hsl);
CHALCEDONY_KERNEL(hwb_planes, hwb_from_rgb);
CHALCEDONY_KERNEL(from_hwb_planes, rgb_from_hwb);

constexpr Space hue_space(std::string_view id, std::string_view title, std::string_view second,
                          std::string_view third, Kernel from_rgb, Kernel to_rgb) {
  return Space{.id = id,
               .title = title,
               .channels = {{{"h", Unit::kDegrees, 0, 360},
                             {second, Unit::kPercent, 0, 100},
                             {third, Unit::kPercent, 0, 100}}},
               .parent = "srgb-clipped",
               .from_parent = Step(from_rgb),
               .to_parent = Step(to_rgb),
               .hue = 0,
               .of_clipped = true};
}
}  // namespace

namespace spaces {
constinit const Space kHsv = hue_space("hsv", "HSV of sRGB", "s", "v", hsv_from_rgb, rgb_from_hsv);
constinit const Space kHsl = hue_space("hsl", "HSL of sRGB", "s", "l", hsl_from_rgb, rgb_from_hsl);
constinit const Space kHwb = hue_space("hwb", "HWB of sRGB", "w", "b", hwb_from_rgb, rgb_from_hwb);
}  // namespace spaces
}  // namespace chalcedony
#endif
