#include "cli/options/parse.h"

#include <fmt/format.h>

#include <algorithm>

#include "cli/options/shared_flags.h"
#include "cli/options/written_options.h"
#include "core/error.h"
#include "core/nearest_name.h"

namespace chalcedony::cli {
namespace {

// Full names only: a shortened name would change its meaning when an option is added.
constexpr int kStyle = (po::command_line_style::unix_style | po::command_line_style::allow_long) &
                       ~po::command_line_style::allow_guessing;

std::vector<std::string> option_names(const po::options_description& options) {
  std::vector<std::string> names;
  for (const auto& option : options.options())
    if (option->long_name() != "input") names.push_back("--" + option->long_name());
  return names;
}

/// A value that was forgotten: the option behind would be taken for it, and a folder named so.
///
/// Errors    UsageError
void refuse_options_as_values(const po::parsed_options& parsed,
                              const po::options_description& all) {
  const std::vector<std::string> names = option_names(all);
  for (const po::option& option : parsed.options) {
    const std::vector<std::string>& words = option.original_tokens;
    if (words.size() < 2 || std::find(names.begin(), names.end(), words[1]) == names.end())
      continue;
    throw UsageError(words[0] + " needs a value, and '" + words[1] + "' is an option",
                     "write the value behind " + words[0]);
  }
}

/// The options that only this command has: all there are would be a page.
std::string own_options(const CommandOptions& options) {
  return fmt::format("this command's own are {}; see --help for all",
                     fmt::join(option_names(options.own), ", "));
}

/// The commands that have an option, by its name with both hyphens.
std::vector<std::string> commands_with(const std::string& option) {
  std::vector<std::string> commands;
  for (const Command* command : all_commands())
    for (const std::string& name : CommandOptions(*command).names())
      if ("--" + name == option) commands.emplace_back(command->name);
  return commands;
}

/// Of an option that this command does not have: one of another command is not mistyped.
UsageError unknown_option(const std::string& name, const CommandOptions& options) {
  constexpr std::size_t kFew = 4;
  const std::vector<std::string> others = commands_with(name);
  if (others.empty()) {
    std::vector<std::string> names;
    for (const std::string& known : options.names()) names.push_back("--" + known);
    return UsageError("there is no option '" + name + "'",
                      suggest_name(name, names, own_options(options)));
  }
  const std::string who =
      others.size() <= kFew ? fmt::format("{}", fmt::join(others, ", ")) : "other commands";
  return UsageError(
      "there is no option '" + name + "' here",
      fmt::format("{} {} it; {}", who, others.size() == 1 ? "has" : "have", own_options(options)));
}

}  // namespace

CommandOptions::CommandOptions(const Command& command) {
  command.declare(own);
  po::options_description all_shared;
  if (command.takes_pictures) declare_shared(command, all_shared);
  for (const auto& option : all_shared.options())
    (command.refuses.holds(option->long_name()) ? refused : shared).add(option);
  declare_common(common);
}

std::vector<std::string> CommandOptions::names() const {
  std::vector<std::string> names;
  for (const po::options_description* part : {&own, &shared, &common})
    for (const auto& option : part->options()) names.push_back(option->long_name());
  return names;
}

po::variables_map parse_arguments(const CommandOptions& options,
                                  const std::vector<std::string>& arguments) {
  po::options_description taken, all;
  taken.add(options.own).add(options.shared).add(options.common);
  all.add(taken).add(options.refused);
  all.add_options()("input", po::value<std::vector<std::string>>()->composing());
  po::positional_options_description operands;
  operands.add("input", -1);
  po::variables_map given;
  try {
    const po::parsed_options parsed =
        po::command_line_parser(arguments).options(all).positional(operands).style(kStyle).run();
    refuse_options_as_values(parsed, all);
    po::store(parsed, given);
    if (given.count("config"))
      po::store(
          po::command_line_parser(words_of_file(given["config"].as<std::string>(), taken, given))
              .options(all)
              .style(kStyle)
              .run(),
          given);
    po::notify(given);
  } catch (const po::unknown_option& error) {
    throw unknown_option(error.get_option_name(), options);
  } catch (const po::multiple_occurrences& error) {
    throw UsageError(error.get_option_name() + " is given twice", "give it once");
  } catch (const po::error_with_option_name& error) {
    throw UsageError(error.get_option_name() + " needs a value", "see --help for its form");
  } catch (const po::error& error) {
    throw UsageError(error.what(), "see --help");
  }
  return given;
}

}  // namespace chalcedony::cli
