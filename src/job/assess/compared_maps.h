// Maps side by side, as a table and as a figure: those of several pictures, and those that each is
// held against.
#ifndef CHALCEDONY_JOB_ASSESS_COMPARED_MAPS_H_
#define CHALCEDONY_JOB_ASSESS_COMPARED_MAPS_H_

#include <filesystem>

#include "figure/maps_figure.h"
#include "job/assess/assess.h"
#include "job/assess/judged_maps.h"

namespace chalcedony {

/// maps.csv: a row for each map with its accuracies, over all and by class, each followed by those
/// of the maps it is held against.
void write_maps(const std::filesystem::path& path, const JudgedMaps& judged);

/// maps.figure: a row for each map; of one map, rows for those it is held against, of several,
/// rings.
MapsFigure maps_figure(const JudgedMaps& judged, const AssessOptions& options);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_ASSESS_COMPARED_MAPS_H_
