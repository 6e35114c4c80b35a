// Merges groups of colors that eyes take for one, and the least different ones of too many.
#ifndef CHALCEDONY_CORE_PALETTE_COLOR_MERGING_H_
#define CHALCEDONY_CORE_PALETTE_COLOR_MERGING_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/palette/group_look.h"

namespace chalcedony {

/// Merges two groups at a time: the closest two while they are less than `apart` of CIEDE2000 from
/// each other; else, while there are more than `most`, those whose merging adds least to the sum
/// of squares within groups in oklab (Ward 1963). A merged group has the mean color of its pixels.
/// Returns for each group the number of what it became part of, 1 for the first.
std::vector<std::uint8_t> merged_groups(const std::vector<GroupLook>& looks, std::size_t most,
                                        double apart);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PALETTE_COLOR_MERGING_H_
