// What the program's exit code means.
#ifndef CHALCEDONY_CLI_TERMINAL_EXIT_CODE_H_
#define CHALCEDONY_CLI_TERMINAL_EXIT_CODE_H_

namespace chalcedony::cli {

enum ExitCode : int {
  kAllDone = 0,     // everything was done
  kSomeFailed = 1,  // some input failed, or the run was stopped
  kWrongUsage = 2,  // the call itself is wrong; nothing was opened
};

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_TERMINAL_EXIT_CODE_H_
