// A command as it would be typed: run from within another one, and shown as a line.
#ifndef CHALCEDONY_CLI_REPEAT_TYPED_COMMAND_H_
#define CHALCEDONY_CLI_REPEAT_TYPED_COMMAND_H_

#include <iosfwd>
#include <string>
#include <vector>

#include "cli/options/command.h"

namespace chalcedony::cli {

/// The command of this name.
///
/// Errors    UsageError that names the nearest one
const Command& command_named(const std::string& name);

/// Runs a command with options that were parsed, and records the run in its results folder.
///
/// Errors    whatever the command throws
Json run_recorded(const Command& command, const po::variables_map& given, const Context& context);

/// Parses and runs a command, the first word. Returns its `command` as a line, what it `says` line
/// by line (without the files it wrote), its `outputs` and its whole `summary`.
///
/// Errors    whatever the command throws
Json run_typed(const std::vector<std::string>& words, const Context& context);

/// What run_typed() would return for a command that is only planned, with nothing said and nothing
/// written. `title` is what the step is called, its `name` or `title` as `key` says.
Json planned_step(const std::string& key, const std::string& title,
                  const std::vector<std::string>& words);

/// What run_typed() returned, as text: the line, what was said, the files.
void print_typed(const Json& step, std::ostream& out);

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_REPEAT_TYPED_COMMAND_H_
