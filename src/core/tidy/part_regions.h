// Regions that touch are parted at their necks.
#ifndef CHALCEDONY_CORE_TIDY_PART_REGIONS_H_
#define CHALCEDONY_CORE_TIDY_PART_REGIONS_H_

#include "core/region/label_grid.h"

namespace chalcedony {

/// Cuts regions (pixels of one class that touch at sides or corners) at necks: two parts of one are
/// parted where the largest disk in each is at least `deeper` pixels larger in radius than what
/// fits into the neck between them. The pixels of the cuts lose their class. Of equal places the
/// upper left one is taken. Beyond the picture a region goes on.
///
/// Memory    some 24 bytes for each pixel of the boxes around the regions under way
/// Source    watersheds of the distance transform by flooding (Beucher and Lantuejoul 1979; Vincent
///           and Soille 1991), of maxima whose dynamics are at least `deeper` (Grimaud 1992)
void part_regions(LabelGrid& grid, double deeper);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_TIDY_PART_REGIONS_H_
