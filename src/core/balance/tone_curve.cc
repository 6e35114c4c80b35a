#include "core/balance/tone_curve.h"

#include <algorithm>
#include <cmath>

#include "core/color/curve_table.h"
#include "core/color/srgb.h"

namespace chalcedony {
namespace {

double asinh_curve(double t, double s) {
  if (std::abs(s) < 1e-9) return t;
  if (s > 0) return std::asinh(s * t) / std::asinh(s);
  // sinh(a t) / sinh(a), without overflow.
  const double a = -s;
  return (std::exp(a * (t - 1)) - std::exp(-a * (t + 1))) / (1 - std::exp(-2 * a));
}

/// The s with asinh_curve(share, s) = target: halving on a scale that is even in its logarithm.
double asinh_strength(double share, double target) {
  const auto strength = [](double u) { return std::copysign(std::pow(10, std::abs(u)) - 1, u); };
  double low = -12, high = 12;
  for (int i = 0; i < 200; ++i) {
    const double middle = (low + high) / 2;
    (asinh_curve(share, strength(middle)) < target ? low : high) = middle;
  }
  return strength((low + high) / 2);
}

}  // namespace

double ToneCurve::at(double share) const {
  const double t = std::clamp((share - black) / (white - black), 0.0, 1.0);
  switch (kind) {
    case CurveKind::kNone:
      return t;
    case CurveKind::kGain:
      return srgb_encoded(strength * srgb_decoded(t));
    case CurveKind::kPower:
      return std::pow(t, strength);
    case CurveKind::kAsinh:
      return asinh_curve(t, strength);
    case CurveKind::kTable:
      break;
  }
  return table_at(table, t);
}

void bend(ToneCurve& curve, CurveKind kind, double share, double target) {
  curve.kind = CurveKind::kNone;
  const double t = curve.at(share);
  curve.kind = kind;
  if (kind == CurveKind::kGain) curve.strength = srgb_decoded(target) / srgb_decoded(t);
  if (kind == CurveKind::kPower) curve.strength = std::log(target) / std::log(t);
  if (kind == CurveKind::kAsinh) curve.strength = asinh_strength(t, target);
}

ToneCurve equalizing_curve(const std::vector<double>& counts) {
  constexpr double kStraight = 0.01;
  double all = 0;
  for (const double count : counts) all += count;
  ToneCurve curve;
  curve.kind = CurveKind::kTable;
  curve.table.push_back(0);
  double sum = 0;
  for (std::size_t i = 0; i < counts.size(); ++i) {
    sum += counts[i];
    const double straight = static_cast<double>(i + 1) / static_cast<double>(counts.size());
    curve.table.push_back((1 - kStraight) * sum / all + kStraight * straight);
  }
  return curve;
}

}  // namespace chalcedony
