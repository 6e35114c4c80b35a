// How far apart two histograms of the same bins are.
#ifndef CHALCEDONY_CORE_STATS_HISTOGRAM_DISTANCE_H_
#define CHALCEDONY_CORE_STATS_HISTOGRAM_DISTANCE_H_

#include <cstddef>
#include <vector>

namespace chalcedony {

/// Counts or shares; they are divided by their sums, which must be above 0.
using Bins = std::vector<double>;

/// 1 less the share that both have in common: 0 to 1 (Swain and Ballard 1991).
double overlap_distance(const Bins& a, const Bins& b);

/// The square root of the Jensen-Shannon divergence to base 2: 0 to 1 (Endres and Schindelin 2003).
double jensen_shannon_distance(const Bins& a, const Bins& b);

/// The square root of 1 less the Bhattacharyya coefficient: 0 to 1 (Hellinger 1909).
double hellinger_distance(const Bins& a, const Bins& b);

/// How far shares must move on average, in bins: the sum of the differences of the cumulative
/// shares.
double transport_on_line(const Bins& a, const Bins& b);

/// The same where the last bin meets the first: the cumulative differences are taken from their
/// median (Werman, Peleg, Melter and Kong 1986).
double transport_on_circle(const Bins& a, const Bins& b);

/// The same for histograms of several axes of `side` bins each, the last axis fastest: the cheapest
/// plan (transport.h) between the bins that hold anything, at straight distances with each axis 1
/// long; a circular axis meets its own end.
double transport_in_cube(const Bins& a, const Bins& b, std::size_t side,
                         const std::vector<bool>& circular);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_STATS_HISTOGRAM_DISTANCE_H_
