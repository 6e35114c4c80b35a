// What the steps of tidying changed, as text.
#ifndef CHALCEDONY_CLI_TEXT_STEPS_TEXT_H_
#define CHALCEDONY_CLI_TEXT_STEPS_TEXT_H_

#include <iosfwd>

#include "job/run/summary.h"

namespace chalcedony::cli {

/// A table of steps as a summary has them: [{"step": ..., "changed": pixels}, ...].
void print_steps(const Json& steps, std::ostream& out);

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_TEXT_STEPS_TEXT_H_
