#include "cli/repeat/typed_command.h"

#include <algorithm>
#include <memory>
#include <sstream>

#include "cli/options/parse.h"
#include "cli/options/shared_flags.h"
#include "core/error.h"
#include "core/nearest_name.h"
#include "job/run/run_record.h"
#include "job/run/typed_line.h"

namespace chalcedony::cli {
namespace {

/// A record that is run again is written by the commands in it.
bool is_replay(const Command& command, const SharedOptions& shared) {
  return command.name == "run" && is_record_name(shared.inputs.front());
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
  if (name.starts_with('-'))
    throw UsageError("the command comes first, and '" + name + "' is an option",
                     "write the command in front of it; 'chalcedony --help' lists all");
  std::vector<std::string> names;
  for (const Command* command : all_commands()) names.emplace_back(command->name);
  names.emplace_back("help");
  throw UsageError("there is no command '" + name + "'", suggest_name(name, names));
}

Json run_recorded(const Command& command, const po::variables_map& given, const Context& context) {
  const SharedOptions shared =
      command.takes_pictures ? shared_from(command, given) : SharedOptions{};
  const bool is_recorded = command.takes_pictures && !is_replay(command, shared);
  // One picture leaves room for this beside its work; several wait until the work has brought their
  // files into memory.
  if (is_recorded && shared.inputs.size() == 1 && !recorded_folder(shared).empty())
    context.ledger->look_at(shared.inputs[0]);
  Json summary = command.run(given, shared, context);
  if (is_recorded) record_run(shared, context, summary);
  return summary;
}

Json run_typed(const std::vector<std::string>& words, const Context& context) {
  const Command& command = command_named(words.front());
  const CommandOptions options(command);
  const auto given = parse_arguments(options, {words.begin() + 1, words.end()});
  Context own = context;
  own.ledger = std::make_shared<RunLedger>();
  const Json summary = run_recorded(command, given, own);
  std::ostringstream text;
  command.print(summary, text);
  return Json{{"command", typed_line(words)},
              {"says", lines_of(text.str())},
              {"outputs", summary["outputs"]},
              {"summary", summary}};
}

Json planned_step(const std::string& key, const std::string& title,
                  const std::vector<std::string>& words) {
  return Json{{key, title},
              {"command", typed_line(words)},
              {"says", Json::array()},
              {"outputs", Json::array()}};
}

void print_typed(const Json& step, std::ostream& out) {
  out << "  $ " << step["command"].get<std::string>() << '\n';
  for (const Json& line : step["says"]) out << "  " << line.get<std::string>() << '\n';
  for (const Json& path : step["outputs"]) out << "  wrote " << path.get<std::string>() << '\n';
  out << '\n';
}

}  // namespace chalcedony::cli
