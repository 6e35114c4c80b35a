// sRGB and display-p3: one transfer function, two sets of primaries.
#include "core/color/srgb.h"

#include <cmath>

#include "core/color/space.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/color/srgb.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/color/planes-inl.h"
#include "core/color/vector_math-inl.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {

// IEC 61966-2-1: below the cut a line, above it a power of 2.4; odd for negative signals.
constexpr double kFull = 255, kOffset = 0.055;
// From the cut up to full scale, powers are taken of 14 to 269, and of 0.8 to 255.
constexpr FixedPower<16> kDecoding =
    fixed_power<16>(2.4, kFull / constant_power((1 + kOffset) * kFull, 2.4));
constexpr FixedPower<16> kEncoding =
    fixed_power<16>(1 / 2.4, (1 + kOffset) * kFull / constant_power(kFull, 1 / 2.4));
constexpr float kShift = static_cast<float>(kOffset * kFull);

struct DecodeSrgb {
  template <class D, class V>
  HWY_INLINE void operator()(D d, V& r, V& g, V& b) const {
    const V cut = hn::Set(d, 0.04045f * 255.0f);
    const auto base = [&](V v) { return hn::Add(hn::Abs(v), hn::Set(d, kShift)); };
    const auto decoded = [&](V v, V power) {
      const V size = hn::Abs(v);
      const V line = hn::Mul(size, hn::Set(d, 1.0f / 12.92f));
      return hn::CopySign(hn::IfThenElse(hn::Le(size, cut), line, power), v);
    };
    bend(d, r, g, b, kDecoding, base, decoded);
  }
};

struct EncodeSrgb {
  template <class D, class V>
  HWY_INLINE void operator()(D d, V& r, V& g, V& b) const {
    const V cut = hn::Set(d, 0.0031308f * 255.0f);
    const auto base = [&](V v) { return hn::Max(hn::Abs(v), cut); };
    const auto encoded = [&](V v, V power) {
      const V size = hn::Abs(v);
      const V line = hn::Mul(size, hn::Set(d, 12.92f));
      const V curve = hn::Sub(power, hn::Set(d, kShift));
      return hn::CopySign(hn::IfThenElse(hn::Le(size, cut), line, curve), v);
    };
    bend(d, r, g, b, kEncoding, base, encoded);
  }
};

struct ClipTo255 {
  template <class D, class V>
  HWY_INLINE void operator()(D d, V& r, V& g, V& b) const {
    const V zero = hn::Zero(d), full = hn::Set(d, 255.0f);
    r = hn::Min(hn::Max(r, zero), full);
    g = hn::Min(hn::Max(g, zero), full);
    b = hn::Min(hn::Max(b, zero), full);
  }
};

void decode_srgb_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, DecodeSrgb{});
}
void encode_srgb_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, EncodeSrgb{});
}
void clip_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, ClipTo255{});
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
#include "core/color/kernel_export.h"
namespace chalcedony {
CHALCEDONY_KERNEL(decode_srgb_planes, decode_srgb);
CHALCEDONY_KERNEL(encode_srgb_planes, encode_srgb);
CHALCEDONY_KERNEL(clip_planes, clip_to_255);

double srgb_decoded(double v) {
  return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4);
}

double srgb_encoded(double v) {
  return v <= 0.0031308 ? v * 12.92 : 1.055 * std::pow(v, 1 / 2.4) - 0.055;
}

namespace spaces {

// IEC 61966-2-1 and ITU-R BT.709 primaries; SMPTE EG 432-1 primaries with the D65 white.
constexpr Affine kSrgbToXyz = then(scale(1.0 / 255.0), rgb_to_xyz(kSrgbPrimaries));
constexpr Affine kP3ToXyz =
    then(scale(1.0 / 255.0), rgb_to_xyz({{0.680, 0.320}, {0.265, 0.690}, {0.150, 0.060}, kD65}));

constinit const Space kSrgbLinear{.id = "srgb-linear",
                                  .title = "linear-light sRGB",
                                  .channels = kRgbChannels,
                                  .parent = "xyz-d65",
                                  .from_parent = Step(inverse(kSrgbToXyz)),
                                  .to_parent = Step(kSrgbToXyz),
                                  .is_rgb = true};

constinit const Space kSrgb{.id = "srgb",
                            .title = "sRGB",
                            .channels = kRgbChannels,
                            .parent = "srgb-linear",
                            .from_parent = Step(encode_srgb),
                            .to_parent = Step(decode_srgb),
                            .is_rgb = true};

constinit const Space kSrgbClipped{.id = "srgb-clipped",
                                   .title = "sRGB clipped to 0-255",
                                   .channels = kRgbChannels,
                                   .parent = "srgb",
                                   .from_parent = Step(clip_to_255),
                                   .to_parent = {},
                                   .is_rgb = true,
                                   .internal = true};

constinit const Space kDisplayP3{.id = "display-p3",
                                 .title = "Display P3",
                                 .channels = kRgbChannels,
                                 .parent = "xyz-d65",
                                 .from_parent = {Step(inverse(kP3ToXyz)), Step(encode_srgb)},
                                 .to_parent = {Step(decode_srgb), Step(kP3ToXyz)},
                                 .is_rgb = true};

}  // namespace spaces
}  // namespace chalcedony
#endif
