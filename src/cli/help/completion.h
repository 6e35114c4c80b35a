// What a shell offers when a command is half typed, made from the declarations of --help.
#ifndef CHALCEDONY_CLI_HELP_COMPLETION_H_
#define CHALCEDONY_CLI_HELP_COMPLETION_H_

#include <string>

namespace chalcedony::cli {

/// A script for bash: completes commands, their options, values that are one of a few words, color
/// spaces, and files everywhere else.
std::string bash_completion();

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_HELP_COMPLETION_H_
