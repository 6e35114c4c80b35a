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

// Of matching_bins(): an odd number of bins to an 8-bit step, and half a step beyond either end.
constexpr std::size_t kSteps = 255, kBinsAStep = 5, kTableStepsAStep = 4;
constexpr double kBeyond = 0.5 / kSteps;  // of the range

/// Ranks from 0 to 1 at the edges of equal bins, with a part of a straight line.
std::vector<double> ranks_at_edges(const std::vector<double>& counts, double straight) {
  double all = 0;
  for (const double count : counts) all += count;
  std::vector<double> ranks{0};
  double sum = 0;
  for (std::size_t i = 0; i < counts.size(); ++i) {
    sum += counts[i];
    ranks.push_back((1 - straight) * sum / all +
                    straight * static_cast<double>(i + 1) / static_cast<double>(counts.size()));
  }
  return ranks;
}

/// Where rising values, straight between equal steps from 0 to 1, reach one of theirs.
double place_of(const std::vector<double>& rising, double value) {
  const auto above = std::upper_bound(rising.begin() + 1, rising.end() - 1, value);
  const double low = *(above - 1), high = *above;
  return (static_cast<double>(above - rising.begin()) - (high - value) / (high - low)) /
         static_cast<double>(rising.size() - 1);
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
  ToneCurve curve;
  curve.kind = CurveKind::kTable;
  curve.table = ranks_at_edges(counts, kStraight);
  return curve;
}

Binning matching_bins(double low, double high) {
  const double beyond = kBeyond * (high - low);
  return {low - beyond, high + beyond, (kSteps + 1) * kBinsAStep};
}

ToneCurve matching_curve(const std::vector<double>& counts, const std::vector<double>& others) {
  constexpr double kStraight = 0.001;
  // Where a value lies beyond the ends of the range, the curve would be level there.
  constexpr double kRising = 1e-6;
  constexpr double kWidth = 1 + 2 * kBeyond;  // of the bins, in ranges
  const std::vector<double> ranks = ranks_at_edges(counts, kStraight),
                            wanted = ranks_at_edges(others, kStraight);
  ToneCurve curve;
  curve.kind = CurveKind::kTable;
  constexpr std::size_t kTableSteps = kSteps * kTableStepsAStep;
  for (std::size_t i = 0; i <= kTableSteps; ++i) {
    const double share = static_cast<double>(i) / static_cast<double>(kTableSteps);
    const double rank = table_at(ranks, (share + kBeyond) / kWidth);
    const double matched = std::clamp(place_of(wanted, rank) * kWidth - kBeyond, 0.0, 1.0);
    curve.table.push_back((1 - kRising) * matched + kRising * share);
  }
  return curve;
}

}  // namespace chalcedony
