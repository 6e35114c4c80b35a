// The options that mean the same for every command, declared once.
#ifndef CHALCEDONY_CLI_SHARED_FLAGS_H_
#define CHALCEDONY_CLI_SHARED_FLAGS_H_

#include <string>
#include <utility>
#include <vector>

#include "cli/command.h"

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

/// The text of an option, or `otherwise` when it was not given.
std::string text_of(const po::variables_map& given, const char* name, const std::string& otherwise);

/// A list split at commas, blanks around items dropped.
std::vector<std::string> split_list(const std::string& text);

/// A whole number in [low, high].
///
/// Errors    UsageError that names the option
std::uint64_t whole_number(const std::string& option, const std::string& text, std::uint64_t low,
                           std::uint64_t high);

/// A number strictly between two ends.
///
/// Errors    UsageError that names the option
double number_between(const std::string& option, const std::string& text, double low, double high);

/// The two sides of NAME=VALUE, neither of them empty.
///
/// Errors    UsageError that names the option
std::pair<std::string, std::string> named_value(const std::string& option, const std::string& text);

/// One of `known`.
///
/// Errors    UsageError that names the option and the nearest right value
std::string one_of(const std::string& option, const std::string& text,
                   const std::vector<std::string>& known);

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_SHARED_FLAGS_H_
