// Maps held against another as text.
#ifndef CHALCEDONY_CLI_TEXT_ASSESS_VERSUS_H_
#define CHALCEDONY_CLI_TEXT_ASSESS_VERSUS_H_

#include <iosfwd>

#include "job/run/summary.h"

namespace chalcedony::cli {

/// What `versus` of an assessment holds: one map in sentences, several as a table.
void print_assess_versus(const Json& assessment, std::ostream& out);

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_TEXT_ASSESS_VERSUS_H_
