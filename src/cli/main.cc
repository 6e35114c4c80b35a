// Finds the command, parses, runs, and turns what was thrown into one line and an exit code.
#include <fmt/format.h>
#include <spdlog/spdlog.h>

#include <chrono>
#include <iostream>
#include <new>
#include <string>

#include "cli/help/help.h"
#include "cli/options/command.h"
#include "cli/options/parse.h"
#include "cli/repeat/typed_command.h"
#include "cli/terminal/console.h"
#include "cli/terminal/exit_code.h"
#include "cli/terminal/standard_streams.h"
#include "cli/text/text_table.h"
#include "core/error.h"
#include "io/file/unused_folder.h"
#include "io/picture/freed_memory.h"
#include "io/text/json_text.h"
#include "io/text/printable_text.h"
#include "job/run/run_facts.h"

namespace chalcedony::cli {
namespace {

/// Every text in it, such as the names of files.
void make_printable(Json& json) {
  if (json.is_string()) {
    json = printable(json.get_ref<const std::string&>());
  } else if (json.is_structured()) {
    for (Json& one : json) make_printable(one);
  }
}

ExitCode run_command(const Command& command, const std::vector<std::string>& arguments) {
  const CommandOptions options(command);
  const po::variables_map given = parse_arguments(options, arguments);
  if (given.count("help")) {
    print_help(command, std::cout);
    return kAllDone;
  }
  const Console console(given);
  const UnusedFolder made(given.count("output") ? given["output"].as<std::string>() : "");
  const auto start = std::chrono::steady_clock::now();
  Json summary = run_recorded(command, given, console.context());
  const std::chrono::duration<double> passed = std::chrono::steady_clock::now() - start;
  spdlog::debug("{} of {}, {:.3f} s", command.name,
                plural(summary["inputs"].size() + summary["failed"].size(), "input"),
                passed.count());
  if (console.wants_json()) {
    std::cout << json_text(summary, 2) << '\n';
  } else if (!console.quiet()) {
    make_printable(summary);
    command.print(summary, std::cout);
  }
  if (!std::cout.flush()) throw OutputError("stdout cannot be written", "check where it leads");
  return summary["failed"].empty() ? kAllDone : kSomeFailed;
}

ExitCode run(const std::vector<std::string>& arguments) {
  if (arguments.empty()) throw UsageError("no command is given", "see 'chalcedony --help'");
  const bool asks_help = arguments[0] == "help" || arguments[0] == "--help" || arguments[0] == "-h";
  if (asks_help && arguments.size() > 1) {
    print_help(command_named(arguments[1]), std::cout);
    return kAllDone;
  }
  if (asks_help) {
    print_overview(std::cout);
    return kAllDone;
  }
  if (arguments[0] == "--version") {
    std::cout << "chalcedony " << program_version() << '\n';
    return kAllDone;
  }
  return run_command(command_named(arguments[0]), {arguments.begin() + 1, arguments.end()});
}

}  // namespace
}  // namespace chalcedony::cli

int main(int argc, char** argv) {
  using namespace chalcedony;
  keep_freed_memory();
  cli::keep_standard_streams();
  cli::answer_signals();
  try {
    return cli::run({argv + 1, argv + argc});
  } catch (const UsageError& error) {
    cli::print_error(error.what());
    return cli::kWrongUsage;
  } catch (const std::bad_alloc&) {
    cli::print_error(
        "there is not enough memory; take fewer --threads, or cut the picture into parts");
    return cli::kSomeFailed;
  } catch (const std::exception& error) {
    cli::print_error(error.what());
    return cli::kSomeFailed;
  }
}
