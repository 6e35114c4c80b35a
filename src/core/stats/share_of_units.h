// A share over units that were drawn, such as the maps of several pictures or the places of a
// survey, and how far it can be trusted by how much the units differ.
#ifndef CHALCEDONY_CORE_STATS_SHARE_OF_UNITS_H_
#define CHALCEDONY_CORE_STATS_SHARE_OF_UNITS_H_

#include <cstddef>
#include <cstdint>
#include <optional>
#include <vector>

#include "core/stats/normal_distribution.h"

namespace chalcedony {

/// Of one unit: the pixels that have what is asked for, and all that were looked at.
struct UnitPart {
  std::uint64_t part = 0;
  std::uint64_t whole = 0;
};

struct ShareOfUnits {
  double share = 0;
  double standard_error = 0;
  Interval interval;      // within what the share can be
  std::size_t units = 0;  // those that have pixels
};

/// The share of all pixels, 0-1, with units as what was drawn: its error is that of a ratio over
/// clusters, sqrt(m / (m - 1) * sum (part - share * whole)^2) / sum whole, its interval by
/// Student's t with m - 1 degrees of freedom. Pixels of one unit being alike does not make it too
/// narrow. Nothing for fewer than two units that have pixels, and for units that do not differ:
/// that all have the same says nothing of units to come.
///
/// Range     0 < level < 1
/// Source    Cochran, Sampling Techniques (1977), 3.12, without finite-population correction
std::optional<ShareOfUnits> share_of_units(const std::vector<UnitPart>& units, double level);

/// The same of how much more of the pixels have it the second time than the first, -1 to 1.
///
/// Shape     as many of both, of the same pixels
std::optional<ShareOfUnits> gain_of_units(const std::vector<UnitPart>& first,
                                          const std::vector<UnitPart>& second, double level);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_STATS_SHARE_OF_UNITS_H_
