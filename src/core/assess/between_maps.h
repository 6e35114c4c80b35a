// How far the accuracy of several maps can be trusted, by how much the maps differ.
#ifndef CHALCEDONY_CORE_ASSESS_BETWEEN_MAPS_H_
#define CHALCEDONY_CORE_ASSESS_BETWEEN_MAPS_H_

#include <cstddef>
#include <cstdint>
#include <optional>
#include <vector>

#include "core/stats/normal_distribution.h"

namespace chalcedony {

/// One map: the pixels that were assessed, and those that are right.
struct MapScore {
  std::uint64_t right = 0;
  std::uint64_t assessed = 0;
};

/// A share of the assessed pixels of all maps.
struct BetweenMaps {
  double share = 0;
  double standard_error = 0;
  Interval interval;     // within what the share can be
  std::size_t maps = 0;  // those with assessed pixels
};

/// The overall accuracy, 0-1, with maps as what was drawn: its error is that of a ratio over
/// clusters, sqrt(m / (m - 1) * sum (right - share * assessed)^2) / sum assessed, its interval by
/// Student's t with m - 1 degrees of freedom. Pixels of one map being alike does not make it too
/// narrow. Nothing for fewer than two maps that have assessed pixels, and for maps that do not
/// differ: that of all pixels of all being right says nothing of maps to come.
///
/// Range     0 < level < 1
/// Source    Cochran, Sampling Techniques (1977), 3.12, without finite-population correction
std::optional<BetweenMaps> between_maps(const std::vector<MapScore>& maps, double level);

/// The same of how much more of the pixels the second maps have right than the first ones, -1 to 1.
///
/// Shape     as many of both, assessed at the same pixels
std::optional<BetweenMaps> gain_between_maps(const std::vector<MapScore>& first,
                                             const std::vector<MapScore>& second, double level);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_ASSESS_BETWEEN_MAPS_H_
