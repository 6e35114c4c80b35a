#include "core/balance/camera_tone.h"

#include <cmath>

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/balance/camera_tone.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/color/planes-inl.h"
#include "core/color/vector_math-inl.h"

#ifndef CHALCEDONY_CORE_BALANCE_CAMERA_TONE_CC_
#define CHALCEDONY_CORE_BALANCE_CAMERA_TONE_CC_
namespace chalcedony {

/// The slope of the curve on roots, where it goes on straight.
constexpr double slope_at_full(const CameraTone& tone) {
  return 1 - tone.bend[0] - tone.bend[1] - tone.bend[2];
}

}  // namespace chalcedony
#endif

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {

struct UndoTone {
  explicit UndoTone(const CameraTone& tone)
      : bend{static_cast<float>(tone.bend[0]), static_cast<float>(tone.bend[1]),
             static_cast<float>(tone.bend[2])},
        slope(static_cast<float>(slope_at_full(tone))) {}

  float bend[3];
  float slope;

  template <class D, class V>
  HWY_INLINE V undone(D d, V light) const {
    const V one = hn::Set(d, 1.0f);
    const V u = hn::Sqrt(hn::Mul(hn::Abs(light), hn::Set(d, 1.0f / 255.0f)));
    const V bent =
        hn::Mul(hn::Mul(u, hn::Sub(one, u)), polynomial(d, u, bend[0], bend[1], bend[2]));
    const V beyond = multiply_add(hn::Set(d, slope), hn::Sub(u, one), one);
    const V root = hn::IfThenElse(hn::Gt(u, one), beyond, hn::Add(u, bent));
    return hn::CopySign(hn::Mul(hn::Mul(root, root), hn::Set(d, 255.0f)), light);
  }
  template <class D, class V>
  HWY_INLINE void operator()(D d, V& r, V& g, V& b) const {
    r = undone(d, r);
    g = undone(d, g);
    b = undone(d, b);
  }
};

void undo_tone_planes(const CameraTone& tone, const ConstPlanes& in, const Planes& out,
                      std::size_t n) {
  map_planes(in, out, n, UndoTone(tone));
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {

bool CameraTone::rises() const {
  constexpr int kPlaces = 100;
  constexpr double kLeast = 0.1;
  const auto& [b0, b1, b2] = bend;
  for (int i = 0; i <= kPlaces; ++i) {
    const double u = static_cast<double>(i) / kPlaces;
    // Of u + b0 (u - u^2) + b1 (u^2 - u^3) + b2 (u^3 - u^4).
    const double slope = 1 + b0 * (1 - 2 * u) + b1 * u * (2 - 3 * u) + b2 * u * u * (3 - 4 * u);
    if (!(slope >= kLeast)) return false;
  }
  return true;
}

double CameraTone::at(double light) const {
  const double u = std::sqrt(std::abs(light));
  const double root = u > 1 ? 1 + slope_at_full(*this) * (u - 1)
                            : u + u * (1 - u) * (bend[0] + u * (bend[1] + u * bend[2]));
  return std::copysign(root * root, light);
}

std::array<double, CameraTone::kTerms> CameraTone::slopes_by_bend(double light) const {
  const double u = std::sqrt(std::abs(light));
  const double root = std::sqrt(std::abs(at(light)));
  const double sign = light < 0 ? -1 : 1;
  std::array<double, kTerms> slopes{};
  double root_by_bend = u > 1 ? 1 - u : u * (1 - u);
  for (double& slope : slopes) {
    slope = sign * 2 * root * root_by_bend;
    if (u <= 1) root_by_bend *= u;
  }
  return slopes;
}

HWY_EXPORT(undo_tone_planes);
void undo_tone(const CameraTone& tone, const ConstPlanes& in, const Planes& out, std::size_t n) {
  HWY_DYNAMIC_DISPATCH(undo_tone_planes)(tone, in, out, n);
}

}  // namespace chalcedony
#endif
