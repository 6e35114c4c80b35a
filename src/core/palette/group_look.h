// What a group of colors looks like: its mean, how far its pixels spread, and its neighbors.
#ifndef CHALCEDONY_CORE_PALETTE_GROUP_LOOK_H_
#define CHALCEDONY_CORE_PALETTE_GROUP_LOOK_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/cluster/points.h"

namespace chalcedony {

/// Colors are in oklab, distances are CIEDE2000.
struct GroupLook {
  double pixels = 0;
  std::array<double, 3> oklab{};    // the mean of its pixels
  std::array<double, 3> typical{};  // the color of one of its pixels; see find_typical()
  double spread = 0;                // root mean square of the distances of its pixels to the mean
  double far_spread = 0;            // 95 % of its pixels are at most so far, to 0.01
  std::size_t nearest = 0;          // group whose color is nearest; itself when there is one only
  double nearest_distance = 0;
};

/// A color as Lab, in which distances are measured.
std::array<double, 3> lab_of(const std::array<double, 3>& oklab);

/// The look of every group, without neighbors and typical colors. A group without points is all 0.
///
/// Shape     `oklab`: points with oklab l, a, b as features; labels[i] is the group of point i,
///           1 for the first of `groups`, at most 255
std::vector<GroupLook> group_looks(const Points& oklab, const std::vector<std::uint8_t>& labels,
                                   std::size_t groups);

/// Fills in the typical color of each group: of the colors of its pixels the one nearest to their
/// geometric median in oklab, the place with the smallest mean distance to all of them. A few
/// pixels of another color, which draw the mean away, hardly move it.
///
/// Shape     as group_looks()
/// Source    Weiszfeld (1937), Tohoku Mathematical Journal 43, 355-386
void find_typical(const Points& oklab, const std::vector<std::uint8_t>& labels,
                  std::vector<GroupLook>& looks);

/// Fills in the nearest other group of each.
void find_neighbors(std::vector<GroupLook>& looks);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PALETTE_GROUP_LOOK_H_
