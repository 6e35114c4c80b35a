// The example run of `chalcedony demo`: commands as a user would type them, run one after the
// other through the same table.
#ifndef CHALCEDONY_CLI_REPEAT_DEMO_STORY_H_
#define CHALCEDONY_CLI_REPEAT_DEMO_STORY_H_

#include <filesystem>

#include "job/run/context.h"
#include "job/run/summary.h"

namespace chalcedony::cli {

/// The steps without running them: `steps` with a title and a command each.
Json demo_steps();

/// Writes the demo data into the folder and runs the steps there. Adds to every step what it said
/// and wrote; the last ones hold maps against the references.
///
/// Errors    whatever a step throws
Json run_demo(const std::filesystem::path& folder, const Context& context);

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_REPEAT_DEMO_STORY_H_
