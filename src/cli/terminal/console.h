// Notes, warnings and errors on stderr, and what a job is given to speak through.
#ifndef CHALCEDONY_CLI_TERMINAL_CONSOLE_H_
#define CHALCEDONY_CLI_TERMINAL_CONSOLE_H_

#include <mutex>
#include <set>
#include <string>

#include "cli/options/command.h"
#include "cli/terminal/progress.h"

namespace chalcedony::cli {

/// `chalcedony: error: LINE` on stderr.
void print_error(const std::string& line);

class Console {
 public:
  /// Errors    UsageError for a --progress or --summary value that is none
  explicit Console(const po::variables_map& given);

  bool quiet() const { return quiet_; }
  bool wants_json() const { return json_; }
  const Context& context() const { return context_; }

 private:
  bool quiet_;
  bool json_;
  std::mutex mutex_;  // pictures are worked on side by side
  std::set<std::string> warned_;
  Progress progress_;
  Context context_;
};

/// Lets Ctrl-C and a polite kill stop the work at the next band, and makes a file that outgrows the
/// limit of the system an error like a full disk.
void answer_signals();

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_TERMINAL_CONSOLE_H_
