#include "cli/help/help.h"

#include <fmt/format.h>

#include <ostream>

#include "cli/options/parse.h"
#include "figure/plot/text_lines.h"

namespace chalcedony::cli {
namespace {

constexpr std::size_t kColumns = 90;

/// Text in lines of at most kColumns, each after `indent` spaces.
std::string wrapped(std::string_view text, std::size_t indent) {
  std::string out;
  for (const std::string& line : text_lines(text, kColumns - indent))
    out += std::string(indent, ' ') + line + "\n";
  return out;
}

void print_options(const po::options_description& options, std::string_view title,
                   std::ostream& out) {
  if (options.options().empty()) return;
  out << "\n" << title << "\n";
  for (const auto& option : options.options()) {
    std::string name = option->canonical_display_name(po::command_line_style::allow_dash_for_short);
    const bool is_short = name.size() == 2 && name.front() == '-';
    name = (is_short ? name + ", --" : "    --") + option->long_name();
    const auto value = option->semantic()->name();
    if (option->semantic()->max_tokens() > 0) name += " " + value;
    out << "  " << name << "\n" << wrapped(option->description(), 10);
  }
}

}  // namespace

void print_overview(std::ostream& out) {
  out << "Chalcedony: color spaces, histograms, selections and class maps of pictures\n\n"
         "usage: chalcedony COMMAND INPUT... [options]\n\n";
  for (const Command* command : all_commands())
    out << fmt::format("  {:<12}{}\n", command->name, command->summary);
  out << "\n'chalcedony COMMAND --help' tells more and shows examples;"
         " 'chalcedony --version' the version.\n"
         "Exit code: 0 all done, 1 some input failed, 2 wrong usage.\n";
}

void print_help(const Command& command, std::ostream& out) {
  out << fmt::format("usage: chalcedony {} {} [options]\n\n", command.name, command.operands);
  out << wrapped(command.purpose, 0);
  if (command.results) {
    out << "\nWrites into the folder of -o (names for --write)\n";
    for (const ResultKind& kind : command.results())
      out << fmt::format("  {:<14}{}", kind.name, wrapped(result_text(kind), 16).substr(16));
  }
  const CommandOptions options(command);
  print_options(options.own, options.own.options().empty() ? "" : "Options of this command", out);
  out << "\nExamples, in the folder of the demo data\n";
  for (const Example& example : command.examples)
    out << fmt::format("  chalcedony {}\n{}", example.arguments, wrapped(example.meaning, 10));
  print_options(options.shared, "Options it shares with other commands", out);
  print_options(options.common, "Options of every command", out);
}

}  // namespace chalcedony::cli
