// What the classes of a map take of regions, as measure tells it.
#ifndef CHALCEDONY_JOB_REGION_REGION_SHARES_H_
#define CHALCEDONY_JOB_REGION_REGION_SHARES_H_

#include <cstddef>
#include <filesystem>
#include <string>
#include <vector>

#include "figure/class_bars_figure.h"
#include "io/text/csv.h"
#include "job/region/measured_regions.h"
#include "job/run/summary.h"

namespace chalcedony {

/// What each kind of the map takes of the regions of each class, for `found.shares`.
///
/// Shape     `found.map` is there
std::vector<std::vector<LabelShares>> shares_by_class(const MeasuredRegions& found);

/// The columns that a map adds to the table of regions: `map_class`, the class that takes most of a
/// region (not of a mask), and `map_NAME_percent` for each class that the map lists, last for
/// pixels of none (not of a mask).
void add_share_columns(const MapInRegions& map, std::vector<std::string>& columns);

/// The same of a region, as fields of its row.
///
/// Shape     `found.map` is there
void add_share_fields(const MeasuredRegions& found, std::size_t region, std::vector<CsvField>& row);

/// The classes that a region holds, the largest first: `name`, `pixels` and `percent` of its
/// pixels.
///
/// Shape     `found.map` is there
Json held_json(const MeasuredRegions& found, std::size_t region);

/// The classes that the regions of a class hold, in the order of the map: `name`, `color`,
/// `pixels`, `percent` (of the pixels of all these regions), `area`, `regions` (those that hold
/// some), and of the shares in each `lowest_percent`, `median_percent`, `highest_percent`,
/// `highest_region`.
///
/// Shape     `found.shares` are there; `of_class`: a place in `found.sizes`
Json class_held_json(const MeasuredRegions& found, std::size_t of_class);

/// What the map takes of all regions, as class_shares_of_all() wants it of each picture: `map` (its
/// file), `counted` (the pixels of all regions), `unclassified` (none of a mask),
/// `unclassified_percent`, `unit` and `classes`.
///
/// Shape     `found.shares` are there
Json map_json(const MeasuredRegions& found);

/// <stem>.shares.csv: a row for each class of regions and class of the map.
///
/// Errors    as write_text_file()
void write_shares(const std::filesystem::path& path, const MeasuredRegions& found);

/// A bar for each of these regions, and what the map takes of all beside their names.
///
/// Shape     `found.shares` are there; one region at least
ClassBars share_bars(const MeasuredRegions& found, const std::vector<std::size_t>& shown,
                     const std::string& input);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_REGION_REGION_SHARES_H_
