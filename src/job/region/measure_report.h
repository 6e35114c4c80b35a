// What measure tells of the regions of a picture, in tables and summaries.
#ifndef CHALCEDONY_JOB_REGION_MEASURE_REPORT_H_
#define CHALCEDONY_JOB_REGION_MEASURE_REPORT_H_

#include <cstddef>
#include <filesystem>
#include <vector>

#include "core/region/region_meter.h"
#include "figure/size_figure.h"
#include "job/region/measured_regions.h"
#include "job/run/summary.h"

namespace chalcedony {

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
