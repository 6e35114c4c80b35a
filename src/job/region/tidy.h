// `tidy`: masks and class maps cleaned by a list of steps.
#ifndef CHALCEDONY_JOB_REGION_TIDY_H_
#define CHALCEDONY_JOB_REGION_TIDY_H_

#include <filesystem>
#include <optional>
#include <vector>

#include "core/tidy/tidy_steps.h"
#include "figure/plot/plot.h"
#include "job/picture/pixel_size.h"
#include "job/run/context.h"
#include "job/run/result_kind.h"
#include "job/run/results.h"
#include "job/run/summary.h"

namespace chalcedony {

struct TidyOptions {
  SharedOptions shared;
  std::vector<TidyStep> steps;
  std::optional<std::filesystem::path> drawn;  // regions that are of their class after the steps,
                                               // or a folder or a pattern of such files
  PixelSize pixel_size;
};

const std::vector<ResultKind>& tidy_results();

Json run_tidy(const TidyOptions& options, const Context& context);

/// report_class_shares() of pictures that were cleaned, the `inputs` of the summary.
void report_cleaned(Json& summary, Plot& plot, Results& results);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_REGION_TIDY_H_
