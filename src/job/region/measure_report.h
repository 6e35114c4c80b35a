// What measure tells of the regions of a picture, in tables and summaries.
#ifndef CHALCEDONY_JOB_REGION_MEASURE_REPORT_H_
#define CHALCEDONY_JOB_REGION_MEASURE_REPORT_H_

#include <cstddef>
#include <cstdint>
#include <filesystem>
#include <string>
#include <vector>

#include "core/channel/channel.h"
#include "core/region/class_sizes.h"
#include "core/region/region_meter.h"
#include "core/region/region_values.h"
#include "figure/part_figure.h"
#include "figure/size_figure.h"
#include "job/picture/pixel_size.h"
#include "job/run/summary.h"

namespace chalcedony {

/// The regions of a mask or a class map.
struct MeasuredRegions {
  bool is_mask = false;
  std::uint64_t picture_pixels = 0;
  PixelSize pixel_size;
  std::filesystem::path pixel_size_from;  // the file that says it; empty: the user, or nobody
  std::vector<std::string> names, class_colors;  // by the number of a class
  std::vector<RegionMeasures> regions;           // in the order of their numbers, from 1 on
  std::vector<ClassSizes> sizes;
  bool has_colors = false;
  std::vector<Channel> channels;     // of the image, in the units asked for
  std::vector<RegionColors> colors;  // of each region
  std::vector<ShownParts> parted;    // where parts were asked for
};

/// The places of so many regions, or of all where there are no more: the largest first, of equals
/// those with the lowest numbers.
std::vector<std::size_t> largest_regions(const std::vector<RegionMeasures>& regions,
                                         std::size_t most);

/// The classes with the diameters of their regions, in the unit of lengths.
std::vector<ShownSizes> shown_sizes(const MeasuredRegions& found);

/// <stem>.regions.csv: a row for each region.
///
/// Errors    as write_text_file()
void write_regions(const std::filesystem::path& path, const MeasuredRegions& found);

/// <stem>.sizes.csv: a row for each class.
///
/// Errors    as write_text_file()
void write_sizes(const std::filesystem::path& path, const MeasuredRegions& found);

/// The same as write_regions(), as a list.
Json regions_json(const MeasuredRegions& found);

/// The summary of a picture: its classes and its largest regions.
Json measured_json(const std::filesystem::path& input, const MeasuredRegions& found);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_REGION_MEASURE_REPORT_H_
