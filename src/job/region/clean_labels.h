// The steps of tidying, done on labels one after the other.
#ifndef CHALCEDONY_JOB_REGION_CLEAN_LABELS_H_
#define CHALCEDONY_JOB_REGION_CLEAN_LABELS_H_

#include <cstdint>
#include <string>
#include <vector>

#include "core/region/label_grid.h"
#include "core/tidy/tidy_steps.h"
#include "io/metadata/class_legend.h"
#include "job/run/context.h"
#include "job/run/summary.h"

namespace chalcedony {

/// How many pixels of two grids of one size differ.
std::uint64_t differing(const LabelGrid& a, const LabelGrid& b);

/// Does the steps, and returns what each changed: [{"step": ..., "changed": pixels}, ...]. `before`
/// is the grid as it is now, which most that call have anyway; `classes` what its numbers are.
///
/// Errors    InputError, without a place, for a step that names a class that is none of these
Json clean_labels(LabelGrid& grid, const LabelGrid& before, const std::vector<LegendEntry>& classes,
                  const std::vector<TidyStep>& steps, const SharedOptions& options);

/// The steps as one text, "open 2 disk; drop 40".
std::string text_of(const std::vector<TidyStep>& steps);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_REGION_CLEAN_LABELS_H_
