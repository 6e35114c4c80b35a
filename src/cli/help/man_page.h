// Manual pages, made from the declarations that --help is made from.
#ifndef CHALCEDONY_CLI_HELP_MAN_PAGE_H_
#define CHALCEDONY_CLI_HELP_MAN_PAGE_H_

#include <string>

#include "cli/options/command.h"

namespace chalcedony::cli {

/// The page of the program, chalcedony(1), in roff.
///
/// Source    man(7)
std::string program_man_page();

/// The page of a command, chalcedony-COMMAND(1).
std::string man_page(const Command& command);

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_HELP_MAN_PAGE_H_
