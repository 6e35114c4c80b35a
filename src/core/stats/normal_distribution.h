// The standard normal distribution: quantiles for intervals, tails for tests.
#ifndef CHALCEDONY_CORE_STATS_NORMAL_DISTRIBUTION_H_
#define CHALCEDONY_CORE_STATS_NORMAL_DISTRIBUTION_H_

namespace chalcedony {

/// The z for which the share `level` of a normal distribution lies within +-z standard deviations:
/// 1.96 for 0.95.
///
/// Range     0 < level < 1
double normal_z(double level);

/// The share of a normal distribution that lies further than |z| from its mean, on both sides.
double two_sided_tail(double z);

/// Two ends of an interval.
struct Interval {
  double low = 0;
  double high = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_STATS_NORMAL_DISTRIBUTION_H_
