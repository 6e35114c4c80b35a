// CIE 1931 XYZ with white D65 (the root of the tree) and D50, and xyY.
#include "core/color/space.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/color/xyz.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/color/planes-inl.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {

// CIE 15: x = X / (X + Y + Z). Black has no chromaticity and gets the white's.
struct XyyFromXyz {
  template <class D, class V>
  HWY_INLINE void operator()(D d, V& x, V& y, V& z) const {
    const V sum = hn::Add(hn::Add(x, y), z);
    const auto black = hn::Eq(sum, hn::Zero(d));
    const V divisor = hn::IfThenElse(black, hn::Set(d, 1.0f), sum);
    const V lum = y;
    y = hn::IfThenElse(black, hn::Set(d, static_cast<float>(kD65.y)), hn::Div(y, divisor));
    x = hn::IfThenElse(black, hn::Set(d, static_cast<float>(kD65.x)), hn::Div(x, divisor));
    z = lum;
  }
};

struct XyzFromXyy {
  template <class D, class V>
  HWY_INLINE void operator()(D d, V& x, V& y, V& lum) const {
    const auto none = hn::Eq(y, hn::Zero(d));
    const V factor =
        hn::IfThenElse(none, hn::Zero(d), hn::Div(lum, hn::IfThenElse(none, hn::Set(d, 1.0f), y)));
    const V z = hn::Sub(hn::Sub(hn::Set(d, 1.0f), x), y);
    x = hn::Mul(x, factor);
    y = hn::IfThenElse(none, hn::Zero(d), lum);
    lum = hn::Mul(z, factor);
  }
};

void xyy_from_xyz_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, XyyFromXyz{});
}
void xyz_from_xyy_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, XyzFromXyy{});
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
#include "core/color/kernel_export.h"
namespace chalcedony {
namespace {
CHALCEDONY_KERNEL(xyy_from_xyz_planes, xyy_from_xyz);
CHALCEDONY_KERNEL(xyz_from_xyy_planes, xyz_from_xyy);
constexpr std::array<ChannelInfo, 3> kXyzChannels{
    {{"x", Unit::kNumber, 0, 1.1}, {"y", Unit::kNumber, 0, 1.1}, {"z", Unit::kNumber, 0, 1.1}}};
}  // namespace

namespace spaces {

constinit const Space kXyzD65{
    .id = "xyz-d65", .title = "CIE XYZ, D65", .channels = kXyzChannels, .parent = ""};

constinit const Space kXyzD50{.id = "xyz-d50",
                              .title = "CIE XYZ, D50",
                              .channels = kXyzChannels,
                              .parent = "xyz-d65",
                              .from_parent = Step(adapt_white(kD65, kD50)),
                              .to_parent = Step(adapt_white(kD50, kD65))};

constinit const Space kXyy{.id = "xyy",
                           .title = "CIE xyY, D65",
                           .channels = {{{"x", Unit::kNumber, 0, 0.8},
                                         {"y", Unit::kNumber, 0, 0.9},
                                         {"lum", Unit::kNumber, 0, 1}}},
                           .parent = "xyz-d65",
                           .from_parent = Step(xyy_from_xyz),
                           .to_parent = Step(xyz_from_xyy)};

}  // namespace spaces
}  // namespace chalcedony
#endif
