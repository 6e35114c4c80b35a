// CIE 1976 Luv, white D65.
#include "core/color/space.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/color/luv.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/color/cie_lightness.h"
#include "core/color/planes-inl.h"
#include "core/color/vector_math-inl.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {

// CIE 15:2018, 8.2.2; u' = 4X / (X + 15Y + 3Z), v' = 9Y / (X + 15Y + 3Z).
constexpr auto kWhite = xyz_of(kD65);
constexpr double kWhiteSum = kWhite[0] + 15.0 + 3.0 * kWhite[2];
constexpr float kWhiteU = static_cast<float>(4.0 * kWhite[0] / kWhiteSum);
constexpr float kWhiteV = static_cast<float>(9.0 / kWhiteSum);

struct LuvFromXyz {
  template <class D, class V>
  HWY_INLINE void operator()(D d, V& x, V& y, V& z) const {
    const V one = hn::Set(d, 1.0f);
    const V sum = hn::Add(hn::Add(x, hn::Mul(y, hn::Set(d, 15.0f))), hn::Mul(z, hn::Set(d, 3.0f)));
    const auto black = hn::Eq(sum, hn::Zero(d));
    const V divisor = hn::IfThenElse(black, one, sum);
    const V u = hn::Div(hn::Mul(x, hn::Set(d, 4.0f)), divisor);
    const V v = hn::Div(hn::Mul(y, hn::Set(d, 9.0f)), divisor);
    const V cut = hn::Set(d, kCieEpsilon<float>);
    const V root = power_above_zero(d, hn::Max(y, cut), kThird);
    const V curve = hn::Sub(hn::Mul(root, hn::Set(d, 116.0f)), hn::Set(d, 16.0f));
    const V l = hn::IfThenElse(hn::Gt(y, cut), curve, hn::Mul(y, hn::Set(d, kCieKappa<float>)));
    const V factor = hn::IfThenElse(black, hn::Zero(d), hn::Mul(l, hn::Set(d, 13.0f)));
    x = l;
    y = hn::Mul(factor, hn::Sub(u, hn::Set(d, kWhiteU)));
    z = hn::Mul(factor, hn::Sub(v, hn::Set(d, kWhiteV)));
  }
};

struct XyzFromLuv {
  template <class D, class V>
  HWY_INLINE void operator()(D d, V& l, V& u, V& v) const {
    const V one = hn::Set(d, 1.0f);
    const auto black = hn::Le(l, hn::Zero(d));
    const V thirteen = hn::IfThenElse(black, one, hn::Mul(l, hn::Set(d, 13.0f)));
    const V up = hn::Add(hn::Div(u, thirteen), hn::Set(d, kWhiteU));
    const V vp = hn::Add(hn::Div(v, thirteen), hn::Set(d, kWhiteV));
    const V root = hn::Mul(hn::Add(l, hn::Set(d, 16.0f)), hn::Set(d, 1.0f / 116.0f));
    const V y = hn::IfThenElse(hn::Gt(l, hn::Set(d, kCieEpsilon<float> * kCieKappa<float>)),
                               hn::Mul(hn::Mul(root, root), root),
                               hn::Mul(l, hn::Set(d, 1.0f / kCieKappa<float>)));
    const V per_v = hn::Div(y, hn::Mul(vp, hn::Set(d, 4.0f)));
    const V x = hn::Mul(hn::Mul(per_v, hn::Set(d, 9.0f)), up);
    const V rest = hn::Sub(hn::Sub(hn::Set(d, 12.0f), hn::Mul(up, hn::Set(d, 3.0f))),
                           hn::Mul(vp, hn::Set(d, 20.0f)));
    l = hn::IfThenElse(black, hn::Zero(d), x);
    u = hn::IfThenElse(black, hn::Zero(d), y);
    v = hn::IfThenElse(black, hn::Zero(d), hn::Mul(per_v, rest));
  }
};

void luv_from_xyz_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, LuvFromXyz{});
}
void xyz_from_luv_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, XyzFromLuv{});
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
#include "core/color/kernel_export.h"
namespace chalcedony {
namespace {
CHALCEDONY_KERNEL(luv_from_xyz_planes, luv_from_xyz);
CHALCEDONY_KERNEL(xyz_from_luv_planes, xyz_from_luv);
}  // namespace

namespace spaces {

constinit const Space kLuv{.id = "luv",
                           .title = "CIE Luv, D65",
                           .channels = {{{"l", Unit::kNumber, 0, 100},
                                         {"u", Unit::kNumber, -150, 200},
                                         {"v", Unit::kNumber, -150, 150}}},
                           .parent = "xyz-d65",
                           .from_parent = Step(luv_from_xyz),
                           .to_parent = Step(xyz_from_luv),
                           .white = "D65"};

}  // namespace spaces
}  // namespace chalcedony
#endif
