// Options that are written in a YAML file: those of a recipe, and those of --config.
#ifndef CHALCEDONY_CLI_OPTIONS_WRITTEN_OPTIONS_H_
#define CHALCEDONY_CLI_OPTIONS_WRITTEN_OPTIONS_H_

#include <string>
#include <vector>

#include "cli/options/command.h"
#include "job/repeat/recipe.h"

namespace chalcedony::cli {

/// Checks that an option is written as it is declared: with a value or as true or false, once or as
/// a list.
///
/// Errors    InputError with its place in the file
void check_kind(const po::option_description& option, const RecipeOption& given);

/// Adds the words that would be typed for an option.
void add_words(const RecipeOption& option, std::vector<std::string>& words);

/// The options of a file that a command has, as the words that would be typed; those that `given`
/// holds already are left out, and so are those of other commands.
///
/// Errors    InputError with its place in the file: an option that no command has, or is written
///           otherwise than it is declared
std::vector<std::string> words_of_file(const std::string& path,
                                       const po::options_description& options,
                                       const po::variables_map& given);

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_OPTIONS_WRITTEN_OPTIONS_H_
