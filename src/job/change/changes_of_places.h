// What became of the classes of several places together.
#ifndef CHALCEDONY_JOB_CHANGE_CHANGES_OF_PLACES_H_
#define CHALCEDONY_JOB_CHANGE_CHANGES_OF_PLACES_H_

#include <string>
#include <vector>

#include "figure/changes_figure.h"
#include "figure/plot/plot.h"
#include "job/run/results.h"
#include "job/run/summary.h"

namespace chalcedony {

/// What became of the classes of one place, as place_json() has it, for the figure of flows;
/// `times` is what its maps are called there.
ChangesFigure flows_figure(const Json& place, const std::vector<std::string>& times);

/// Of the inputs of a summary, each a place as place_json() has it: adds what became of the classes
/// of all of them as `together` (docs/summaries.md), writes places.csv, and where figures are drawn
/// adds those of all to the plot. Of one place there is nothing to add.
///
/// Errors    OutputError
void report_changes(Json& summary, Plot& plot, Results& results);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_CHANGE_CHANGES_OF_PLACES_H_
