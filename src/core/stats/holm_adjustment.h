// Probabilities of several tests made at once.
#ifndef CHALCEDONY_CORE_STATS_HOLM_ADJUSTMENT_H_
#define CHALCEDONY_CORE_STATS_HOLM_ADJUSTMENT_H_

#include <vector>

namespace chalcedony {

/// The p of each of several tests, raised so that with a limit of 5 % for them, one of the tests
/// finds a difference where there is none in 5 % of all cases at most, however many tests there are
/// and however they depend on each other: the k-th smallest of n times n - k + 1, at least as large
/// as the one before, at most 1.
///
/// Shape     in the order of `p`
/// Source    Holm (1979), Scandinavian Journal of Statistics 6
std::vector<double> holm_adjusted(const std::vector<double>& p);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_STATS_HOLM_ADJUSTMENT_H_
