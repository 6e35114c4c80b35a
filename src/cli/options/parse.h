// A command's arguments to options, with our own words for mistakes.
#ifndef CHALCEDONY_CLI_OPTIONS_PARSE_H_
#define CHALCEDONY_CLI_OPTIONS_PARSE_H_

#include <string>
#include <vector>

#include "cli/options/command.h"

namespace chalcedony::cli {

/// All options of a command: its own first, then those it shares with others, then those of every
/// command.
struct CommandOptions {
  explicit CommandOptions(const Command& command);

  /// The long names of all of them, without hyphens.
  std::vector<std::string> names() const;

  po::options_description own, shared, common;
  /// Shared ones that mean nothing to this command: they are read, to be answered with the reason,
  /// and told nowhere.
  po::options_description refused;
};

/// Errors    UsageError: an unknown option with the nearest right one, a missing or repeated value
po::variables_map parse_arguments(const CommandOptions& options,
                                  const std::vector<std::string>& arguments);

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_OPTIONS_PARSE_H_
