// Makes the results of a folder again, from its record.
#ifndef CHALCEDONY_CLI_REPEAT_REPLAY_H_
#define CHALCEDONY_CLI_REPEAT_REPLAY_H_

#include <filesystem>

#include "job/run/context.h"
#include "job/run/summary.h"

namespace chalcedony::cli {

/// The commands that a how.json stands for, with results in `output`: `name` and `command` of each.
///
/// Errors    InputError
Json planned_replay(const std::filesystem::path& record, const std::filesystem::path& output);

/// Runs them in the folder they were typed in, after a check that every file they read is still as
/// it was. Adds `steps`, `outputs` and `failed` to the summary.
///
/// Errors    InputError that names a file that changed; what a command throws
void replay(const std::filesystem::path& record, const std::filesystem::path& output,
            const Context& context, Json& summary);

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_REPEAT_REPLAY_H_
