// CIE Lab, with white D50 (`lab`, as in CSS) and D65 (`lab-d65`).
#include "core/color/space.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/color/lab.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/color/cie_lightness.h"
#include "core/color/planes-inl.h"
#include "core/color/vector_math-inl.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {

// CIE 15:2018, 8.2.1.
struct LabFromXyz {
  float to_x, to_z;  // 1 / white
  template <class D, class V>
  HWY_INLINE void operator()(D d, V& x, V& y, V& z) const {
    const V cut = hn::Set(d, kCieEpsilon<float>);
    const auto base = [&](V t) { return hn::Max(t, cut); };
    const auto f = [&](V t, V root) {
      const V line = hn::Mul(hn::Add(hn::Mul(t, hn::Set(d, kCieKappa<float>)), hn::Set(d, 16.0f)),
                             hn::Set(d, 1.0f / 116.0f));
      return hn::IfThenElse(hn::Gt(t, cut), root, line);
    };
    V fx = hn::Mul(x, hn::Set(d, to_x)), fy = y, fz = hn::Mul(z, hn::Set(d, to_z));
    bend(d, fx, fy, fz, kThird, base, f);
    x = hn::Sub(hn::Mul(hn::Set(d, 116.0f), fy), hn::Set(d, 16.0f));
    y = hn::Mul(hn::Set(d, 500.0f), hn::Sub(fx, fy));
    z = hn::Mul(hn::Set(d, 200.0f), hn::Sub(fy, fz));
  }
};

struct XyzFromLab {
  float white_x, white_z;
  template <class D, class V>
  HWY_INLINE V inverse_f(D d, V f) const {
    const V cube = hn::Mul(hn::Mul(f, f), f);
    const V line = hn::Mul(hn::Sub(hn::Mul(f, hn::Set(d, 116.0f)), hn::Set(d, 16.0f)),
                           hn::Set(d, 1.0f / kCieKappa<float>));
    return hn::IfThenElse(hn::Gt(cube, hn::Set(d, kCieEpsilon<float>)), cube, line);
  }
  template <class D, class V>
  HWY_INLINE void operator()(D d, V& l, V& a, V& b) const {
    const V fy = hn::Mul(hn::Add(l, hn::Set(d, 16.0f)), hn::Set(d, 1.0f / 116.0f));
    const V fx = hn::Add(fy, hn::Mul(a, hn::Set(d, 1.0f / 500.0f)));
    const V fz = hn::Sub(fy, hn::Mul(b, hn::Set(d, 1.0f / 200.0f)));
    l = hn::Mul(inverse_f(d, fx), hn::Set(d, white_x));
    a = inverse_f(d, fy);
    b = hn::Mul(inverse_f(d, fz), hn::Set(d, white_z));
  }
};

constexpr LabFromXyz lab_from(Chromaticity white) {
  const auto xyz = xyz_of(white);
  return {static_cast<float>(1.0 / xyz[0]), static_cast<float>(1.0 / xyz[2])};
}
constexpr XyzFromLab lab_to(Chromaticity white) {
  const auto xyz = xyz_of(white);
  return {static_cast<float>(xyz[0]), static_cast<float>(xyz[2])};
}

void lab_d50_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, lab_from(kD50));
}
void lab_d65_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, lab_from(kD65));
}
void xyz_d50_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, lab_to(kD50));
}
void xyz_d65_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, lab_to(kD65));
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
#include "core/color/kernel_export.h"
namespace chalcedony {
namespace {
CHALCEDONY_KERNEL(lab_d50_planes, lab_from_xyz_d50);
CHALCEDONY_KERNEL(lab_d65_planes, lab_from_xyz_d65);
CHALCEDONY_KERNEL(xyz_d50_planes, xyz_d50_from_lab);
CHALCEDONY_KERNEL(xyz_d65_planes, xyz_d65_from_lab);
constexpr std::array<ChannelInfo, 3> kLabChannels{{{"l", Unit::kNumber, 0, 100},
                                                   {"a", Unit::kNumber, -125, 125},
                                                   {"b", Unit::kNumber, -125, 125}}};
}  // namespace

namespace spaces {

constinit const Space kLab{.id = "lab",
                           .title = "CIE Lab, D50",
                           .channels = kLabChannels,
                           .parent = "xyz-d50",
                           .from_parent = Step(lab_from_xyz_d50),
                           .to_parent = Step(xyz_d50_from_lab),
                           .white = "D50"};

constinit const Space kLabD65{.id = "lab-d65",
                              .title = "CIE Lab, D65",
                              .channels = kLabChannels,
                              .parent = "xyz-d65",
                              .from_parent = Step(lab_from_xyz_d65),
                              .to_parent = Step(xyz_d65_from_lab),
                              .white = "D65"};

}  // namespace spaces
}  // namespace chalcedony
#endif
