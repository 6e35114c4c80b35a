// A share estimated from a sample of things that are so or not.
#ifndef CHALCEDONY_CORE_STATS_PROPORTION_H_
#define CHALCEDONY_CORE_STATS_PROPORTION_H_

#include <cstdint>
#include <optional>

#include "core/stats/normal_distribution.h"

namespace chalcedony {

/// The interval that holds the true share with probability `level` (0-1) when `hits` of `n` were
/// found; nothing for an empty sample. It stays within 0-1 and is not empty at 0 or n hits.
///
/// Source    Wilson (1927), Journal of the American Statistical Association 22, without
///           continuity correction
std::optional<Interval> wilson_interval(std::uint64_t hits, std::uint64_t n, double level);

/// How many must be drawn at random so that a share near `expected` is known within +-half_width
/// at this level.
///
/// Range     0 <= expected <= 1, half_width > 0
/// Source    Cochran, Sampling Techniques (1977), 4.4, without finite-population correction
std::uint64_t sample_size_for(double expected, double half_width, double level);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_STATS_PROPORTION_H_
