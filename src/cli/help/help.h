// What --help prints.
#ifndef CHALCEDONY_CLI_HELP_HELP_H_
#define CHALCEDONY_CLI_HELP_HELP_H_

#include <iosfwd>

#include "cli/options/command.h"

namespace chalcedony::cli {

/// The list of commands.
void print_overview(std::ostream& out);

/// What a command is for, what it writes, its options and its examples.
void print_help(const Command& command, std::ostream& out);

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_HELP_HELP_H_
