#include "cli/options/written_options.h"

#include <algorithm>
#include <array>

#include "cli/options/parse.h"
#include "core/error.h"
#include "core/nearest_name.h"

namespace chalcedony::cli {
namespace {

// What is said of a single run.
constexpr std::array kOnlyTyped{"config", "help", "input"};

/// The options that any command has.
std::vector<std::string> all_option_names() {
  std::vector<std::string> names;
  for (const Command* command : all_commands())
    for (const std::string& name : CommandOptions(*command).names()) names.push_back(name);
  std::sort(names.begin(), names.end());
  names.erase(std::unique(names.begin(), names.end()), names.end());
  return names;
}

void check_is_known(const RecipeOption& option) {
  const std::vector<std::string> names = all_option_names();
  const std::string& name = option.name.text;
  const bool only_typed = std::find(kOnlyTyped.begin(), kOnlyTyped.end(), name) != kOnlyTyped.end();
  if (only_typed || !std::binary_search(names.begin(), names.end(), name))
    throw InputError("no command has an option '" + name + "'", suggest_name(name, names),
                     option.name.place);
}

}  // namespace

void check_kind(const po::option_description& option, const RecipeOption& given) {
  const bool takes_value = option.semantic()->max_tokens() > 0;
  if (takes_value && given.is_flag)
    throw InputError("the option '" + given.name.text + "' needs a value", "write it as text",
                     given.name.place);
  if (!takes_value && !given.is_flag)
    throw InputError("the option '" + given.name.text + "' has no value", "write true or false",
                     given.name.place);
  if (given.is_list && !option.semantic()->is_composing())
    throw InputError("the option '" + given.name.text + "' has one value", "write it once",
                     given.name.place);
}

void add_words(const RecipeOption& option, std::vector<std::string>& words) {
  if (option.is_flag) words.push_back("--" + option.name.text);
  for (const std::string& value : option.values) {
    words.push_back("--" + option.name.text);
    words.push_back(value);
  }
}

std::vector<std::string> words_of_file(const std::string& path,
                                       const po::options_description& options,
                                       const po::variables_map& given) {
  std::vector<std::string> words;
  for (const RecipeOption& written : read_options(path)) {
    check_is_known(written);
    const po::option_description* const option = options.find_nothrow(written.name.text, false);
    if (!option || given.count(written.name.text)) continue;
    check_kind(*option, written);
    add_words(written, words);
  }
  return words;
}

}  // namespace chalcedony::cli
