// The outlines of regions along the edges of their pixels.
#ifndef CHALCEDONY_CORE_REGION_OUTLINES_H_
#define CHALCEDONY_CORE_REGION_OUTLINES_H_

#include <array>
#include <cstdint>
#include <vector>

#include "core/region/region_map.h"

namespace chalcedony {

/// Corners of a closed ring; the first is repeated at the end. Pixel (x, y) has its corners at x,
/// y and x + 1, y + 1.
using Ring = std::vector<std::array<std::uint32_t, 2>>;

/// The rings of every region of the map: its outer one first, then those of its holes. By the
/// even-odd rule they hold exactly the pixels of the region.
std::vector<std::vector<Ring>> outlines_of(const RegionMap& map, std::uint32_t width,
                                           std::uint32_t height, Connectivity connectivity);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_REGION_OUTLINES_H_
