// Figure of measured regions: outlines, boxes and numbers on a picture.
#ifndef CHALCEDONY_FIGURE_REGION_FIGURE_H_
#define CHALCEDONY_FIGURE_REGION_FIGURE_H_

#include <cstdint>
#include <filesystem>
#include <string>
#include <vector>

#include "core/pixel/thumbnail.h"
#include "core/region/outlines.h"
#include "core/region/region_meter.h"
#include "figure/plot/plot.h"

namespace chalcedony {

/// A region to be drawn with its number and outline.
struct ShownRegion {
  std::size_t number = 0;
  RegionMeasures measures;
  std::vector<Ring> rings;
};

/// `sentence` says which regions are shown, and of how many. A number that has no room beside those
/// of regions before it is left out.
void add_region_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                       const std::vector<ShownRegion>& regions, const std::string& sentence,
                       const Thumbnail& picture);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_REGION_FIGURE_H_
