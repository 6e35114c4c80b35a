// hsi: hue angle, saturation and intensity of clipped sRGB (Gonzalez and Woods, color models).
#include "core/color/space.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/color/hsi.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/color/planes-inl.h"
#include "core/color/vector_math-inl.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {

// i is the mean of r g b, s is 1 - smallest / i. The hue is the angle of the color in the plane
// across the gray axis; for the triangle of primaries that equals the arccosine of the book.
struct HsiFromRgb {
  template <class D, class V>
  HWY_INLINE void operator()(D d, V& r, V& g, V& b) const {
    const V sum = hn::Add(hn::Add(r, g), b);
    const V smallest = hn::Min(r, hn::Min(g, b));
    const auto black = hn::Le(sum, hn::Zero(d));
    const V safe = hn::IfThenElse(black, hn::Set(d, 1.0f), sum);
    const V across = hn::Mul(hn::Sub(g, b), hn::Set(d, 1.7320508f));
    const V along = hn::Add(hn::Sub(r, g), hn::Sub(r, b));
    const V grayness = hn::Div(hn::Mul(smallest, hn::Set(d, 300.0f)), safe);
    r = angle_degrees(d, across, along);
    g = hn::IfThenElse(black, hn::Zero(d), hn::Sub(hn::Set(d, 100.0f), grayness));
    b = hn::Mul(sum, hn::Set(d, 100.0f / 765.0f));
  }
};

// In each third of the circle one primary is smallest, at i (1 - s); the next follows the book's
// cosine quotient, and the last one keeps the sum.
struct RgbFromHsi {
  template <class D, class V>
  HWY_INLINE void operator()(D d, V& h, V& s, V& i) const {
    const V level = hn::Mul(i, hn::Set(d, 2.55f));
    const V saturation = hn::Mul(s, hn::Set(d, 0.01f));
    const auto second = hn::Ge(h, hn::Set(d, 120.0f));
    const auto third = hn::Ge(h, hn::Set(d, 240.0f));
    const V start =
        hn::IfThenElse(third, hn::Set(d, 240.0f), hn::IfThenElseZero(second, hn::Set(d, 120.0f)));
    const V in_third = hn::Sub(h, start);
    V sine, cosine, below_sine, below_cosine;
    sine_cosine_degrees(d, in_third, sine, cosine);
    sine_cosine_degrees(d, hn::Sub(hn::Set(d, 60.0f), in_third), below_sine, below_cosine);
    const V one = hn::Set(d, 1.0f);
    const V x = hn::Mul(level, hn::Sub(one, saturation));
    const V y = hn::Mul(level, hn::Add(one, hn::Div(hn::Mul(saturation, cosine), below_cosine)));
    const V z = hn::Sub(hn::Mul(level, hn::Set(d, 3.0f)), hn::Add(x, y));
    h = hn::IfThenElse(third, z, hn::IfThenElse(second, x, y));
    s = hn::IfThenElse(third, x, hn::IfThenElse(second, y, z));
    i = hn::IfThenElse(third, y, hn::IfThenElse(second, z, x));
  }
};

void hsi_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, HsiFromRgb{});
}
void from_hsi_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, RgbFromHsi{});
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
#include "core/color/kernel_export.h"
namespace chalcedony {
namespace {
CHALCEDONY_KERNEL(hsi_planes, hsi_from_rgb);
CHALCEDONY_KERNEL(from_hsi_planes, rgb_from_hsi);
}  // namespace

namespace spaces {
constinit const Space kHsi{.id = "hsi",
                           .title = "HSI of sRGB",
                           .channels = {{{"h", Unit::kDegrees, 0, 360},
                                         {"s", Unit::kPercent, 0, 100},
                                         {"i", Unit::kPercent, 0, 100}}},
                           .parent = "srgb-clipped",
                           .from_parent = Step(hsi_from_rgb),
                           .to_parent = Step(rgb_from_hsi),
                           .hue = 0,
                           .of_clipped = true};
}  // namespace spaces
}  // namespace chalcedony
#endif
