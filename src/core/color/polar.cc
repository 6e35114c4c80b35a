// lch, lch-d65, oklch and lchuv: the opponent spaces with chroma and hue in place of two axes.
#include "core/color/space.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/color/polar.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/color/planes-inl.h"
#include "core/color/vector_math-inl.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {

struct PolarFromAxes {
  template <class D, class V>
  HWY_INLINE void operator()(D d, V&, V& a, V& b) const {
    const V chroma = hn::Sqrt(hn::Add(hn::Mul(a, a), hn::Mul(b, b)));
    b = angle_degrees(d, b, a);
    a = chroma;
  }
};

struct AxesFromPolar {
  template <class D, class V>
  HWY_INLINE void operator()(D d, V&, V& chroma, V& hue) const {
    V sine, cosine;
    sine_cosine_degrees(d, hue, sine, cosine);
    hue = hn::Mul(chroma, sine);
    chroma = hn::Mul(chroma, cosine);
  }
};

void polar_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, PolarFromAxes{});
}
void axes_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, AxesFromPolar{});
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
#include "core/color/kernel_export.h"
namespace chalcedony {
namespace {
CHALCEDONY_KERNEL(polar_planes, polar_from_axes);
CHALCEDONY_KERNEL(axes_planes, axes_from_polar);

constexpr Space polar_space(std::string_view id, std::string_view title, std::string_view parent,
                            double full_lightness, double full_chroma,
                            std::string_view white = {}) {
  return Space{.id = id,
               .title = title,
               .channels = {{{"l", Unit::kNumber, 0, full_lightness},
                             {"c", Unit::kNumber, 0, full_chroma},
                             {"h", Unit::kDegrees, 0, 360}}},
               .parent = parent,
               .from_parent = Step(polar_from_axes),
               .to_parent = Step(axes_from_polar),
               .white = white,
               .hue = 2};
}
}  // namespace

namespace spaces {
constinit const Space kLch = polar_space("lch", "CIE LCh, D50", "lab", 100, 150, "D50");
constinit const Space kLchD65 = polar_space("lch-d65", "CIE LCh, D65", "lab-d65", 100, 150, "D65");
constinit const Space kOklch = polar_space("oklch", "OKLCh, D65", "oklab", 1, 0.4);
constinit const Space kLchuv = polar_space("lchuv", "CIE LCh of Luv, D65", "luv", 100, 200, "D65");
}  // namespace spaces
}  // namespace chalcedony
#endif
