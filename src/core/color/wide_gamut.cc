// a98-rgb, prophoto-rgb and rec2020: RGB spaces with larger gamuts and transfer functions of their
// own.
#include "core/color/space.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/color/wide_gamut.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/color/planes-inl.h"
#include "core/color/vector_math-inl.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {

// A power with a straight piece next to black, odd for negative signals; all in 0-255.
// decoded = ((v + offset) / (1 + offset))^gamma above `cut`, v / slope below.
struct Toe {
  FixedPower gamma, inverse;
  float offset, slope, cut;  // cut on the encoded side, 0-1
};
constexpr Toe toe(double gamma, float offset, float slope, float cut) {
  return {fixed_power(gamma), fixed_power(1 / gamma), offset, slope, cut};
}
constexpr Toe kA98Toe = toe(563.0 / 256.0, 0.0f, 1.0f, -1.0f);
constexpr Toe kProphotoToe = toe(1.8, 0.0f, 16.0f, 16.0f / 512.0f);
constexpr float kAlpha = 0.09929682680944f, kBeta = 0.018053968510807f;
constexpr Toe kRec2020Toe = toe(1 / 0.45, kAlpha, 4.5f, 4.5f * kBeta);

// Values in 0-1, without their sign.
template <class D, class V>
HWY_INLINE V unit_size(D d, V v) {
  return hn::Mul(hn::Abs(v), hn::Set(d, 1.0f / 255.0f));
}

struct Decode {
  const Toe& toe;
  template <class D, class V>
  HWY_INLINE void operator()(D d, V& r, V& g, V& b) const {
    const auto base = [&](V v) {
      return hn::Mul(hn::Add(unit_size(d, v), hn::Set(d, toe.offset)),
                     hn::Set(d, 1.0f / (1.0f + toe.offset)));
    };
    const auto decoded = [&](V v, V power) {
      const V size = unit_size(d, v);
      const V line = hn::Mul(size, hn::Set(d, 1.0f / toe.slope));
      const V linear = hn::IfThenElse(hn::Lt(size, hn::Set(d, toe.cut)), line, power);
      return hn::CopySign(hn::Mul(linear, hn::Set(d, 255.0f)), v);
    };
    bend_from_zero(d, r, g, b, toe.gamma, base, decoded);
  }
};

struct Encode {
  const Toe& toe;
  template <class D, class V>
  HWY_INLINE void operator()(D d, V& r, V& g, V& b) const {
    const auto base = [&](V v) { return unit_size(d, v); };
    const auto encoded = [&](V v, V root) {
      const V curve = hn::Sub(hn::Mul(root, hn::Set(d, 1.0f + toe.offset)), hn::Set(d, toe.offset));
      const V line = hn::Mul(unit_size(d, v), hn::Set(d, toe.slope));
      const V bent = hn::IfThenElse(hn::Lt(line, hn::Set(d, toe.cut)), line, curve);
      return hn::CopySign(hn::Mul(bent, hn::Set(d, 255.0f)), v);
    };
    bend_from_zero(d, r, g, b, toe.inverse, base, encoded);
  }
};

void decode_a98_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, Decode{kA98Toe});
}
void encode_a98_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, Encode{kA98Toe});
}
void decode_prophoto_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, Decode{kProphotoToe});
}
void encode_prophoto_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, Encode{kProphotoToe});
}
void decode_rec2020_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, Decode{kRec2020Toe});
}
void encode_rec2020_planes(const ConstPlanes& in, const Planes& out, std::size_t n) {
  map_planes(in, out, n, Encode{kRec2020Toe});
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
#include "core/color/kernel_export.h"
namespace chalcedony {
namespace {
CHALCEDONY_KERNEL(decode_a98_planes, decode_a98);
CHALCEDONY_KERNEL(encode_a98_planes, encode_a98);
CHALCEDONY_KERNEL(decode_prophoto_planes, decode_prophoto);
CHALCEDONY_KERNEL(encode_prophoto_planes, encode_prophoto);
CHALCEDONY_KERNEL(decode_rec2020_planes, decode_rec2020);
CHALCEDONY_KERNEL(encode_rec2020_planes, encode_rec2020);
}  // namespace

namespace spaces {

// Primaries and curves as CSS Color 4 gives them; rec2020 by the curve of ITU-R BT.2020.
constexpr Affine kA98ToXyz =
    then(scale(1.0 / 255.0), rgb_to_xyz({{0.64, 0.33}, {0.21, 0.71}, {0.15, 0.06}, kD65}));
constexpr Affine kProphotoToXyz =
    then(scale(1.0 / 255.0),
         rgb_to_xyz({{0.734699, 0.265301}, {0.159597, 0.840403}, {0.036598, 0.000105}, kD50}));
constexpr Affine kRec2020ToXyz =
    then(scale(1.0 / 255.0), rgb_to_xyz({{0.708, 0.292}, {0.170, 0.797}, {0.131, 0.046}, kD65}));

constinit const Space kA98Rgb{.id = "a98-rgb",
                              .title = "A98 RGB",
                              .channels = kRgbChannels,
                              .parent = "xyz-d65",
                              .from_parent = {Step(inverse(kA98ToXyz)), Step(encode_a98)},
                              .to_parent = {Step(decode_a98), Step(kA98ToXyz)},
                              .is_rgb = true};

constinit const Space kProphotoRgb{
    .id = "prophoto-rgb",
    .title = "ProPhoto RGB, D50",
    .channels = kRgbChannels,
    .parent = "xyz-d50",
    .from_parent = {Step(inverse(kProphotoToXyz)), Step(encode_prophoto)},
    .to_parent = {Step(decode_prophoto), Step(kProphotoToXyz)},
    .is_rgb = true};

constinit const Space kRec2020{.id = "rec2020",
                               .title = "Rec. 2020 RGB",
                               .channels = kRgbChannels,
                               .parent = "xyz-d65",
                               .from_parent = {Step(inverse(kRec2020ToXyz)), Step(encode_rec2020)},
                               .to_parent = {Step(decode_rec2020), Step(kRec2020ToXyz)},
                               .is_rgb = true};

}  // namespace spaces
}  // namespace chalcedony
#endif
