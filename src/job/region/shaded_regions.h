// The regions of a picture, each in a color of how much of it a class of a map takes.
#ifndef CHALCEDONY_JOB_REGION_SHADED_REGIONS_H_
#define CHALCEDONY_JOB_REGION_SHADED_REGIONS_H_

#include <vector>

#include "core/region/region_map.h"
#include "figure/plot/sheet_grid.h"
#include "io/picture/label_picture.h"
#include "job/region/measured_regions.h"

namespace chalcedony {

/// A small copy of the picture for each class of the map, those that take most first: the region
/// that has least of it is darkest, the one that has most is lightest, and its number stands in it;
/// for that the smallest regions, which together have a hundredth of the area, do not count.
/// The labels and classes of `picture` are written over.
///
/// Shape     `found.map` is there, and a region; `map`: the regions of the picture
std::vector<SheetCell> shaded_regions(const MeasuredRegions& found, const RegionMap& map,
                                      LabelPicture& picture);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_REGION_SHADED_REGIONS_H_
