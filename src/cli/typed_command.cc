#include "cli/typed_command.h"

#include <algorithm>
#include <sstream>

#include "cli/parse.h"
#include "cli/shared_flags.h"
#include "core/error.h"
#include "core/nearest_name.h"

namespace chalcedony::cli {
namespace {

bool needs_quotes(const std::string& word) {
  return word.empty() || word.find_first_of(" *<>()&;|$") != std::string::npos;
}

Json lines_of(const std::string& text) {
  Json lines = Json::array();
  std::istringstream stream(text);
  for (std::string line; std::getline(stream, line);) {
    const std::size_t begin = std::min(line.size(), line.find_first_not_of(' '));
    if (!line.substr(begin).starts_with("wrote ")) lines.push_back(line);
  }
  return lines;
}

}  // namespace

const Command& command_named(const std::string& name) {
  if (const Command* command = find_command(name)) return *command;
  std::vector<std::string> names;
  for (const Command* command : all_commands()) names.emplace_back(command->name);
  throw UsageError("there is no command '" + name + "'", suggest_name(name, names));
}

std::string command_line(const std::vector<std::string>& words) {
  std::string line = "chalcedony";
  for (const std::string& word : words)
    line += needs_quotes(word) ? " \"" + word + "\"" : " " + word;
  return line;
}

Json run_typed(const std::vector<std::string>& words, const Context& context) {
  const Command& command = command_named(words.front());
  const CommandOptions options(command);
  const auto given = parse_arguments(options, {words.begin() + 1, words.end()});
  const Json summary = command.run(given, shared_from(command, given), context);
  std::ostringstream text;
  command.print(summary, text);
  return Json{{"command", command_line(words)},
              {"says", lines_of(text.str())},
              {"outputs", summary["outputs"]},
              {"summary", summary}};
}

void print_typed(const Json& step, std::ostream& out) {
  out << "  $ " << step["command"].get<std::string>() << '\n';
  for (const Json& line : step["says"]) out << "  " << line.get<std::string>() << '\n';
  for (const Json& path : step["outputs"]) out << "  wrote " << path.get<std::string>() << '\n';
  out << '\n';
}

}  // namespace chalcedony::cli
