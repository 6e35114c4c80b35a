// How many regions classes have in several pictures together.
#ifndef CHALCEDONY_JOB_REGION_REGION_COUNTS_H_
#define CHALCEDONY_JOB_REGION_REGION_COUNTS_H_

#include "figure/plot/plot.h"
#include "job/run/results.h"
#include "job/run/summary.h"

namespace chalcedony {

/// Of the summaries that measure makes of pictures, adds to that of the run as `together`: how many
/// `pictures` there are, the `count` of all their regions, and for each class that some picture has
/// its `name`, `color`, `count`, and the fewest and the most of its regions in a picture: `fewest`,
/// `fewest_file`, `most`, `most_file` (the first such picture). Where the
/// pictures have a `map`, adds what its classes take of all regions as `map`, as
/// class_shares_of_all() tells it. Where figures are drawn, adds counts.figure, sizes.figure and
/// shares.figure to the plot. Nothing of fewer than two pictures.
void report_region_counts(Json& summary, Plot& plot, Results& results);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_REGION_REGION_COUNTS_H_
