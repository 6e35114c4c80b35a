// `diff`: how different pictures are from others, pixel by pixel.
#ifndef CHALCEDONY_JOB_LOOK_DIFF_H_
#define CHALCEDONY_JOB_LOOK_DIFF_H_

#include <filesystem>
#include <optional>
#include <string>
#include <vector>

#include "core/color/color_difference.h"
#include "figure/plot/plot.h"
#include "job/run/context.h"
#include "job/run/result_kind.h"
#include "job/run/results.h"
#include "job/run/summary.h"

namespace chalcedony {

/// The tolerance of a run that names none, in the units of the formula.
double usual_tolerance(DifferenceFormula formula);

struct DiffOptions {
  SharedOptions shared;                     // without `to` two inputs, the first against the second
  std::optional<std::filesystem::path> to;  // what each input is held against: a picture, or of a
                                            // folder or a pattern the one that goes with it
  DifferenceFormula formula = DifferenceFormula::kCiede2000;
  std::string formula_name = "ciede2000";
  double tolerance = usual_tolerance(DifferenceFormula::kCiede2000);  // units of the formula
};

const std::vector<ResultKind>& diff_results();

/// Draws how far each of several pictures is from what it is held against.
void report_differences(Json& summary, Plot& plot, Results& results);

/// Errors    InputError, also when no picture can be compared; OutputError
Json run_diff(const DiffOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_LOOK_DIFF_H_
