// What is known of the regions of a mask or a class map.
#ifndef CHALCEDONY_JOB_REGION_MEASURED_REGIONS_H_
#define CHALCEDONY_JOB_REGION_MEASURED_REGIONS_H_

#include <cstddef>
#include <cstdint>
#include <filesystem>
#include <optional>
#include <string>
#include <vector>

#include "core/channel/channel.h"
#include "core/region/class_sizes.h"
#include "core/region/region_labels.h"
#include "core/region/region_meter.h"
#include "core/region/region_values.h"
#include "figure/part_figure.h"
#include "job/picture/pixel_size.h"
#include "job/region/map_in_regions.h"

namespace chalcedony {

struct MeasuredRegions {
  bool is_mask = false;
  std::uint64_t picture_pixels = 0;
  PixelSize pixel_size;
  std::filesystem::path pixel_size_from;  // the file that says it; empty: the user, or nobody
  std::vector<std::string> names, class_colors;  // by the number of a class
  std::vector<RegionMeasures> regions;           // in the order of their numbers, from 1 on
  std::vector<ClassSizes> sizes;                 // of the classes that have regions
  bool has_colors = false;
  std::vector<Channel> channels;                 // of the image, in the units asked for
  std::vector<RegionColors> colors;              // of each region
  std::vector<ShownParts> parted;                // where parts were asked for
  std::optional<MapInRegions> map;               // where a map was named
  std::vector<std::vector<LabelShares>> shares;  // then, for each of `sizes` of each of its kinds

  /// Of all regions together.
  std::uint64_t pixels_of_all() const {
    std::uint64_t pixels = 0;
    for (const RegionMeasures& region : regions) pixels += region.pixels;
    return pixels;
  }
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_REGION_MEASURED_REGIONS_H_
