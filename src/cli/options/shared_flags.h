// The options that mean the same for every command, declared once.
#ifndef CHALCEDONY_CLI_OPTIONS_SHARED_FLAGS_H_
#define CHALCEDONY_CLI_OPTIONS_SHARED_FLAGS_H_

#include <string>
#include <vector>

#include "cli/options/command.h"

namespace chalcedony::cli {

/// Options of commands that read pictures.
void declare_shared(const Command& command, po::options_description& options);

/// Options of every command: help, quiet, verbose, summary, progress.
void declare_common(po::options_description& options);

/// Errors    UsageError
SharedOptions shared_from(const Command& command, const po::variables_map& given);

/// Errors    UsageError when one of these options was given: it means nothing here, and `why` says
///           why, as in "--region means nothing here: WHY"
void refuse_options(const po::variables_map& given, const std::vector<std::string>& options,
                    const std::string& why);

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_OPTIONS_SHARED_FLAGS_H_
