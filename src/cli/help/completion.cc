#include "cli/help/completion.h"

#include <fmt/format.h>

#include <algorithm>

#include "cli/options/command.h"
#include "cli/options/parse.h"
#include "core/color/space.h"
#include "core/split_list.h"

namespace chalcedony::cli {
namespace {

/// The words a value is one of, by what --help calls it: `text|json` is two words; capitals stand
/// for something to be filled in, and are left out.
std::string choices_of(const std::string& value_name) {
  if (value_name == "SPACE") {
    std::string spaces;
    for (const Space* space : all_spaces())
      if (!space->internal) spaces += std::string(space->id) + " ";
    return spaces;
  }
  const std::vector<std::string> words = split_list(value_name, '|');
  if (words.size() < 2) return "";
  std::string choices;
  for (const std::string& word : words) {
    const bool is_word = std::none_of(word.begin(), word.end(), [](char c) {
      return (c >= 'A' && c <= 'Z') || c == '=' || c == ',' || c == '.';
    });
    if (is_word) choices += word + " ";
  }
  return choices;
}

/// The options of a command in a case of the script, and those whose values are a few words.
void add_command(const Command& command, std::string& options, std::string& values) {
  const CommandOptions all(command);
  std::string names;
  for (const po::options_description* part : {&all.own, &all.shared, &all.common})
    for (const auto& option : part->options()) {
      names += "--" + option->long_name() + " ";
      if (option->semantic()->max_tokens() == 0) continue;
      const std::string choices = choices_of(option->semantic()->name());
      if (!choices.empty())
        values += fmt::format("    {}:--{}) values='{}' ;;\n", command.name, option->long_name(),
                              choices);
    }
  options += fmt::format("    {}) options='{}' ;;\n", command.name, names);
}

}  // namespace

std::string bash_completion() {
  std::string commands, options, values;
  for (const Command* command : all_commands()) {
    commands += std::string(command->name) + " ";
    add_command(*command, options, values);
  }
  return fmt::format(R"(# Completion of chalcedony for bash.
_chalcedony() {{
  local word=${{COMP_WORDS[COMP_CWORD]}} before=${{COMP_WORDS[COMP_CWORD-1]}}
  local command=${{COMP_WORDS[1]}} options='' values=''
  if [ "$COMP_CWORD" -eq 1 ]; then
    COMPREPLY=($(compgen -W '{0}help --help --version' -- "$word"))
    return
  fi
  if [ "$command" = help ]; then
    COMPREPLY=($(compgen -W '{0}' -- "$word"))
    return
  fi
  case $command:$before in
{1}  esac
  if [ -n "$values" ]; then
    COMPREPLY=($(compgen -W "$values" -- "$word"))
    return
  fi
  case $command in
{2}  esac
  if [[ $word == -* ]]; then
    COMPREPLY=($(compgen -W "$options" -- "$word"))
  else
    COMPREPLY=($(compgen -f -- "$word"))
  fi
}}
complete -o filenames -F _chalcedony chalcedony
)",
                     commands, values, options);
}

}  // namespace chalcedony::cli
