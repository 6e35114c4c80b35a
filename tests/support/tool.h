// Runs the built program in a folder of the test's own.
#ifndef CHALCEDONY_TESTS_SUPPORT_TOOL_H_
#define CHALCEDONY_TESTS_SUPPORT_TOOL_H_

#include <string>
#include <vector>

#include "tests/support/temp_dir.h"

namespace chalcedony::test {

struct Outcome {
  int exit_code = 0;
  std::string out;
  std::string err;
};

struct ToolSettings {
  std::string path;              // PATH of the program, when it is not the test's own
  std::string temporary;         // TMPDIR of the program, when it is not the test's own
  std::uint64_t file_limit = 0;  // bytes a file may grow to, as on a full disk; 0 for no limit
  std::uint64_t memory = 0;      // bytes of memory it may have; 0 for no limit
  std::string out;               // where stdout leads, when not into the Outcome
  bool streams = true;           // whether it has a stdin, a stdout and a stderr
};

/// The words of a command.
using Words = std::vector<std::string>;

/// Runs `chalcedony ARGUMENTS...` in the folder, without a shell.
Outcome run_tool(const TempDir& dir, const Words& arguments, const ToolSettings& settings = {});

/// The words of a command line; double quotes hold a word together.
Words words_of(const std::string& line);

/// A command with more words behind it.
Words with(Words words, const Words& more);

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_SUPPORT_TOOL_H_
