// Curves that make a channel darker or brighter and keep the order of its values.
#ifndef CHALCEDONY_CORE_BALANCE_TONE_CURVE_H_
#define CHALCEDONY_CORE_BALANCE_TONE_CURVE_H_

#include <cstddef>
#include <vector>

#include "core/stats/binning.h"

namespace chalcedony {

enum class CurveKind {
  kNone,   // the levels alone
  kGain,   // a factor on linear light; bright values can leave the range
  kPower,  // t to a power: keeps both ends
  kAsinh,  // asinh(s t) / asinh(s), or its inverse for negative s: keeps both ends, straight near 0
  kTable,  // a table of rising values, as of ranks
};

/// A curve on shares of a channel's range, 0 to 1: what lies at `black` becomes 0, at `white` 1,
/// and what lies beyond is cut; then it is bent.
struct ToneCurve {
  CurveKind kind = CurveKind::kNone;
  double black = 0, white = 1;
  double strength = 1;        // the factor, the power, or s
  std::vector<double> table;  // at equal steps from 0 to 1

  /// Rises strictly between black and white.
  double at(double share) const;
};

/// Bends a curve so that `share` becomes `target`.
///
/// Range     kGain, kPower or kAsinh; share strictly between black and white, target in 0 to 1
/// Source    sRGB's transfer function for linear light: IEC 61966-2-1:1999
void bend(ToneCurve& curve, CurveKind kind, double share, double target);

/// The curve that spreads values evenly: the running sum of their counts, with one part in a
/// hundred of a straight line so that it rises everywhere.
///
/// Shape     counts of values in equal bins over the range; not all 0
ToneCurve equalizing_curve(const std::vector<double>& counts);

/// The bins of matching_curve() over a channel's range: 8-bit codes lie in the middle of one.
Binning matching_bins(double low, double high);

/// The curve that gives values the distribution of others: each becomes the value of the same rank
/// among those, ranks taken straight within a bin and with one part in a thousand of a straight
/// line, so that it rises everywhere. Of equal counts it changes nothing.
///
/// Shape     counts of both in matching_bins(); neither all 0
/// Source    Gonzalez and Fittes, Gray-level transformations for interactive image enhancement,
///           1977 (direct specification of a histogram)
ToneCurve matching_curve(const std::vector<double>& counts, const std::vector<double>& others);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_BALANCE_TONE_CURVE_H_
