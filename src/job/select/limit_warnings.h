// Warnings of limits in selections that look like a mistake.
#ifndef CHALCEDONY_JOB_SELECT_LIMIT_WARNINGS_H_
#define CHALCEDONY_JOB_SELECT_LIMIT_WARNINGS_H_

#include <string>
#include <vector>

#include "core/select/doubtful_limits.h"
#include "job/run/context.h"

namespace chalcedony {

/// Warns of every doubtful test of a selection.
void warn_of_limits(const Expression& selection, const Context& context);

/// Warns of a named interval of a channel, when it is doubtful; whether it is. `beside`: as for
/// doubt_about().
bool warn_of_limits(const std::string& name, const Channel& channel, const Limits& limits,
                    const std::vector<Limits>& beside, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_SELECT_LIMIT_WARNINGS_H_
