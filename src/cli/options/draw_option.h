// The options that say which pixels of maps are drawn.
#ifndef CHALCEDONY_CLI_OPTIONS_DRAW_OPTION_H_
#define CHALCEDONY_CLI_OPTIONS_DRAW_OPTION_H_

#include <string>

#include "cli/options/command.h"
#include "job/assess/draw_design.h"

namespace chalcedony::cli {

/// `--count`, `--fraction`, `--stratified` and `--every`; `otherwise` says what is done without
/// them.
void declare_draw(po::options_description& options, const std::string& otherwise);

/// What they say; they exclude one another where they would contradict.
///
/// Errors    UsageError
DrawDesign draw_option(const po::variables_map& given);

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_OPTIONS_DRAW_OPTION_H_
