// A class map that is read in the regions of a picture of labels.
#ifndef CHALCEDONY_JOB_REGION_MAP_IN_REGIONS_H_
#define CHALCEDONY_JOB_REGION_MAP_IN_REGIONS_H_

#include <cstddef>
#include <cstdint>
#include <filesystem>
#include <vector>

#include "core/region/region_labels.h"
#include "core/region/run_linker.h"
#include "io/metadata/class_legend.h"
#include "io/picture/label_file.h"
#include "job/run/context.h"

namespace chalcedony {

struct MapInRegions {
  std::filesystem::path file;
  bool is_mask = false;
  /// What a pixel can be: the classes that the map lists, others that are in it, and last
  /// unclassified, number 0, which a mask is without. Numbers that share a name are one, the first.
  std::vector<LegendEntry> kinds;
  RegionLabels labels;  // of each region
};

/// Reads a class map, a mask, or a sample file beside the rows of labels whose regions are known.
///
/// Shape     `region_of_part`: as RegionMeter::region_of_part()
/// Cost      as RegionLabels
/// Errors    InputError when the map is of another size than the labels; as open_label_input() and
///           LabelRows::next()
MapInRegions map_in_regions(const std::filesystem::path& file, LabelFile& labels,
                            Connectivity connectivity,
                            const std::vector<std::uint32_t>& region_of_part, std::size_t regions,
                            const SharedOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_REGION_MAP_IN_REGIONS_H_
