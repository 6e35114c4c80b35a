// `diff`: how different two pictures are, pixel by pixel.
#ifndef CHALCEDONY_JOB_LOOK_DIFF_H_
#define CHALCEDONY_JOB_LOOK_DIFF_H_

#include "core/color/color_difference.h"
#include "job/run/context.h"
#include "job/run/result_kind.h"
#include "job/run/summary.h"

namespace chalcedony {

/// The tolerance of a run that names none, in the units of the formula.
double usual_tolerance(DifferenceFormula formula);

struct DiffOptions {
  SharedOptions shared;  // two inputs of one size
  DifferenceFormula formula = DifferenceFormula::kCiede2000;
  std::string formula_name = "ciede2000";
  double tolerance = usual_tolerance(DifferenceFormula::kCiede2000);  // units of the formula
};

const std::vector<ResultKind>& diff_results();

/// Errors    InputError when the pictures are of different sizes; OutputError
Json run_diff(const DiffOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_LOOK_DIFF_H_
