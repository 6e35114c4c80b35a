// The figures of an assessment worked out step by step, as a text to hand out.
#ifndef CHALCEDONY_CLI_TEXT_ASSESS_LESSON_H_
#define CHALCEDONY_CLI_TEXT_ASSESS_LESSON_H_

#include <iosfwd>

#include "job/run/summary.h"

namespace chalcedony::cli {

/// How the first assessed pixels fill the matrix, then omission, commission, overall accuracy and
/// kappa from its totals, with the numbers put in.
void print_assess_lesson(const Json& assessment, std::ostream& out);

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_TEXT_ASSESS_LESSON_H_
