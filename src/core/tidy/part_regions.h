// Regions that touch are parted at their necks.
#ifndef CHALCEDONY_CORE_TIDY_PART_REGIONS_H_
#define CHALCEDONY_CORE_TIDY_PART_REGIONS_H_

#include <vector>

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

/// A part of a region.
struct RegionPart {
  Label label = 0;  // of the region
  double radius =
      0;            // of the largest disk in it, in pixels, at most the longer side of the picture
  double neck = 0;  // of what fits into its neck to a deeper part; 0: there is none in the region
  double x = 0, y = 0;  // the center of the disk

  double deeper() const { return radius - neck; }
};

/// All parts of the regions of a class map, from the top down and from left to right:
/// part_regions() cuts at the necks of those that are at least `deeper` larger in radius than
/// theirs. Memory and sources are the same.
std::vector<RegionPart> parts_of_regions(const LabelGrid& grid);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_TIDY_PART_REGIONS_H_
