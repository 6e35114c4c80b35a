// What a command is: one table row from which parsing, help and documentation are made.
#ifndef CHALCEDONY_CLI_OPTIONS_COMMAND_H_
#define CHALCEDONY_CLI_OPTIONS_COMMAND_H_

#include <algorithm>
#include <boost/program_options.hpp>
#include <iosfwd>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "job/run/context.h"
#include "job/run/result_kind.h"
#include "job/run/summary.h"

namespace chalcedony::cli {

namespace po = boost::program_options;

struct Example {
  std::string_view arguments;  // what follows `chalcedony`; runs on the demo data as it stands
  std::string_view meaning;
};

/// Options that commands share and that mean nothing to one, and why: "smooth writes one picture".
struct RefusedOptions {
  std::vector<std::string> options;
  std::string why;

  bool holds(const std::string& option) const {
    return std::find(options.begin(), options.end(), option) != options.end();
  }
};

/// That there are to be no figures, which is so of a command that draws none.
inline bool wants_no_figures(std::string_view option, std::string_view value) {
  return option == "figures" && value == "none";
}

/// What is so of some commands only.
enum class Trait {
  kJoinsInputs,    // makes one result of all its inputs, so that they cannot be left out or divided
  kSkipsBad,       // of these, one that can do without some inputs
  kDraws,          // draws something at random, by --seed
  kReadsSamples,   // takes files of sample regions, which may be of another size
  kQuotesValues,   // reads out values of channels, so that --units may be asked
  kNamesChannels,  // takes names of channels: --space says whose may be named without it
  kOwnSpace,       // declares --space itself, as it means more there
};

struct Command {
  std::string_view name;
  std::string_view summary;   // one line, for the list of commands
  std::string_view operands;  // how its operands are written in the usage line
  std::string_view purpose;   // a short paragraph for --help
  std::vector<Example> examples;
  bool takes_pictures = true;  // has input pictures and the shared options
  const std::vector<ResultKind>& (*results)() = nullptr;  // what --write can name; null for none
  void (*declare)(po::options_description& options);
  /// Options to a job; every check that needs no file comes first.
  Json (*run)(const po::variables_map& given, const SharedOptions& shared, const Context& context);
  /// The summary as text for people.
  void (*print)(const Json& summary, std::ostream& out);
  /// What --alpha may say, when that is not whether transparent pixels count; the command declares
  /// the option itself then.
  std::vector<std::string> own_alpha = {};
  RefusedOptions refuses = {};
  std::vector<Trait> traits = {};

  bool has(Trait trait) const {
    return std::find(traits.begin(), traits.end(), trait) != traits.end();
  }
};

/// Every command, in the order they are listed.
std::span<const Command* const> all_commands();

/// The command of this name, or null.
const Command* find_command(std::string_view name);

/// Declares an option with a value that may be given once, as every command does it.
template <class Value>
void add_option(po::options_description& options, const char* name, const char* value_name,
                const char* meaning) {
  options.add_options()(name, po::value<Value>()->value_name(value_name), meaning);
}

/// The same for one that may be repeated; texts_of() has its values.
inline void add_repeated_option(po::options_description& options, const char* name,
                                const char* value_name, const char* meaning) {
  options.add_options()(
      name, po::value<std::vector<std::string>>()->composing()->value_name(value_name), meaning);
}

/// Declares an option without a value.
inline void add_flag(po::options_description& options, const char* name, const char* meaning) {
  options.add_options()(name, meaning);
}

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_OPTIONS_COMMAND_H_
