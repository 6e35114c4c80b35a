#include "cli/help/man_page.h"

#include <fmt/format.h>

#include "cli/options/parse.h"
#include "job/run/run_facts.h"

namespace chalcedony::cli {
namespace {

/// Text as roff takes it literally.
std::string roff(std::string_view text) {
  std::string out;
  if (!text.empty() && (text.front() == '.' || text.front() == '\'')) out += "\\&";
  for (const char c : text) {
    if (c == '\\') {
      out += "\\e";
    } else if (c == '-') {
      out += "\\-";
    } else {
      out += c;
    }
  }
  return out;
}

std::string header(const std::string& name) {
  return fmt::format(".TH \"{}\" 1 \"\" \"chalcedony {}\" \"Chalcedony\"\n", roff(name),
                     roff(program_version()));
}

std::string option_names(const po::option_description& option) {
  const std::string shortest =
      option.canonical_display_name(po::command_line_style::allow_dash_for_short);
  std::string names;
  if (shortest.size() == 2 && shortest.front() == '-') names = "\\fB" + roff(shortest) + "\\fR, ";
  names += "\\fB" + roff("--" + option.long_name()) + "\\fR";
  if (option.semantic()->max_tokens() > 0)
    names += " \\fI" + roff(option.semantic()->name()) + "\\fR";
  return names;
}

std::string options_part(const po::options_description& options, std::string_view title) {
  if (options.options().empty()) return {};
  std::string out = fmt::format(".SS {}\n", title);
  for (const auto& option : options.options())
    out += fmt::format(".TP\n{}\n{}\n", option_names(*option), roff(option->description()));
  return out;
}

constexpr std::string_view kExitStatus =
    ".SH EXIT STATUS\n0 when all was done, 1 when some input failed, 2 for wrong usage.\n";

}  // namespace

std::string program_man_page() {
  std::string out =
      header("CHALCEDONY") +
      ".SH NAME\nchalcedony \\- color spaces, histograms, selections and class maps "
      "of pictures\n.SH SYNOPSIS\n\\fBchalcedony\\fR \\fICOMMAND\\fR \\fIINPUT\\fR... "
      "[options]\n.SH COMMANDS\nEach has a page of its own, "
      "\\fBchalcedony\\-COMMAND\\fR(1).\n";
  for (const Command* command : all_commands())
    out += fmt::format(".TP\n\\fB{}\\fR\n{}\n", roff(command->name), roff(command->summary));
  return out + std::string(kExitStatus);
}

std::string man_page(const Command& command) {
  const std::string name = "chalcedony-" + std::string(command.name);
  std::string out = header(name);
  out += fmt::format(".SH NAME\n{} \\- {}\n", roff(name), roff(command.summary));
  out += fmt::format(".SH SYNOPSIS\n\\fBchalcedony {}\\fR {} [options]\n", roff(command.name),
                     roff(command.operands));
  out += ".SH DESCRIPTION\n" + roff(command.purpose) + "\n";
  if (command.results) {
    out +=
        ".SH RESULTS\nWritten into the folder of \\fB\\-o\\fR; the names are for "
        "\\fB\\-\\-write\\fR.\n";
    for (const ResultKind& kind : command.results())
      out += fmt::format(".TP\n\\fB{}\\fR\n{}\n", roff(kind.name), roff(result_text(kind)));
  }
  const CommandOptions options(command);
  out += ".SH OPTIONS\n" + options_part(options.own, "Of this command") +
         options_part(options.shared, "That it shares with other commands") +
         options_part(options.common, "Of every command");
  out += ".SH EXAMPLES\n";
  for (const Example& example : command.examples)
    out += fmt::format(".TP\n\\fBchalcedony {}\\fR\n{}\n", roff(example.arguments),
                       roff(example.meaning));
  return out + std::string(kExitStatus) + ".SH SEE ALSO\n\\fBchalcedony\\fR(1)\n";
}

}  // namespace chalcedony::cli
