// Student's t distribution: quantiles for intervals of means of few.
#ifndef CHALCEDONY_CORE_STATS_STUDENT_DISTRIBUTION_H_
#define CHALCEDONY_CORE_STATS_STUDENT_DISTRIBUTION_H_

namespace chalcedony {

/// The t for which the share `level` of Student's distribution lies within +-t: 2.228 for 0.95 and
/// 10 degrees of freedom.
///
/// Range     0 < level < 1, degrees > 0
double student_t(double level, double degrees);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_STATS_STUDENT_DISTRIBUTION_H_
