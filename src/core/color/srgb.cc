// sRGB and display-p3: one transfer function, two sets of primaries.
#include "core/color/srgb.h"

#include <cmath>

#include "core/color/space.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/color/srgb.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/color/curve_pieces-inl.h"
#include "core/color/fixed_power.h"
#include "core/color/planes-inl.h"
#include "core/color/vector_math-inl.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {

// IEC 61966-2-1: below the cut a line, above it a power of 2.4; odd for negative signals.
constexpr double kFull = 255, kOffset = 0.055, kSlope = 12.92;
constexpr float kEncodedCut = 0.04045f * 255.0f, kLinearCut = 0.0031308f * 255.0f;
constexpr float kShift = static_cast<float>(kOffset * kFull);
constexpr auto decoded_above_cut = [](double v) {
  return kFull * constant_power((v / kFull + kOffset) / (1 + kOffset), 2.4);
};
constexpr auto encoded_above_cut = [](double v) {
  return kFull * ((1 + kOffset) * constant_power(v / kFull, 1 / 2.4) - kOffset);
};
// Up to 273 and 269. The joints and scales are those with the smallest errors: 3e-5 and 1.8e-4.
constexpr auto kDecodingPieces =
    curve_pieces<3, 20>(kEncodedCut, 144.0f, 1.4f, 1 / kSlope, decoded_above_cut);
constexpr auto kEncodingPieces =
    curve_pieces<4, 22>(kLinearCut, 1.5f, 0.95f, kSlope, encoded_above_cut);

struct DecodeSrgb {
  template <class D, class V>
  HWY_INLINE void operator()(D d, V& r, V& g, V& b) const {
    const auto beyond = [d](V v) {
      constexpr float kFactor =
          static_cast<float>(kFull / constant_power((1 + kOffset) * kFull, 2.4));
      const V power = power_positive(d, hn::Add(v, hn::Set(d, kShift)), 2.4f);
      return hn::Mul(power, hn::Set(d, kFactor));
    };
    follow_pieces(d, r, g, b, kDecodingPieces, beyond);
  }
};

struct EncodeSrgb {
  template <class D, class V>
  HWY_INLINE void operator()(D d, V& r, V& g, V& b) const {
    const auto beyond = [d](V v) {
      constexpr float kFactor =
          static_cast<float>((1 + kOffset) * kFull / constant_power(kFull, 1 / 2.4));
      const V power = power_positive(d, v, static_cast<float>(1 / 2.4));
      return hn::Sub(hn::Mul(power, hn::Set(d, kFactor)), hn::Set(d, kShift));
    };
    follow_pieces(d, r, g, b, kEncodingPieces, beyond);
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
