// Histogram tables added up.
#ifndef CHALCEDONY_JOB_HISTOGRAM_HISTOGRAM_MERGE_H_
#define CHALCEDONY_JOB_HISTOGRAM_HISTOGRAM_MERGE_H_

#include "job/run/context.h"
#include "job/run/summary.h"

namespace chalcedony {

/// Adds the counts of tables that `histogram` wrote (of channels or joint), all inputs of one
/// layout, and works out the shares anew. Writes merged.histogram.csv or merged.joint.csv.
///
/// Errors    InputError for a file that is no such table, or whose rows are not those of the first
Json merge_histograms(const SharedOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_HISTOGRAM_HISTOGRAM_MERGE_H_
