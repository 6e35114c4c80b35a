#include "tests/support/tool.h"

#include <fcntl.h>
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

#include <cstdlib>
#include <stdexcept>

namespace chalcedony::test {
namespace {

/// The built program, or another build of it that the environment names.
const char* program() {
  const char* const other = std::getenv("CHALCEDONY_PROGRAM");
  return other ? other : CHALCEDONY_PROGRAM;
}

[[noreturn]] void become_tool(const TempDir& dir, const std::vector<std::string>& arguments,
                              const ToolSettings& settings, const char* out, const char* err) {
  const int out_file = ::open(out, O_CREAT | O_WRONLY | O_TRUNC, 0600);
  const int err_file = ::open(err, O_CREAT | O_WRONLY | O_TRUNC, 0600);
  ::dup2(out_file, STDOUT_FILENO);
  ::dup2(err_file, STDERR_FILENO);
  if (::chdir(dir.path().c_str()) != 0) ::_exit(126);
  if (settings.file_limit > 0) {
    const rlimit limit{settings.file_limit, settings.file_limit};
    ::setrlimit(RLIMIT_FSIZE, &limit);
  }
  if (settings.memory > 0) {
    const rlimit limit{settings.memory, settings.memory};
    ::setrlimit(RLIMIT_AS, &limit);
  }
  if (!settings.path.empty()) ::setenv("PATH", settings.path.c_str(), 1);
  if (!settings.temporary.empty()) ::setenv("TMPDIR", settings.temporary.c_str(), 1);
  std::vector<char*> argv{const_cast<char*>(program())};
  for (const std::string& argument : arguments) argv.push_back(const_cast<char*>(argument.c_str()));
  argv.push_back(nullptr);
  if (!settings.streams) ::close_range(STDIN_FILENO, static_cast<unsigned>(err_file), 0);
  ::execv(program(), argv.data());
  ::_exit(127);
}

}  // namespace

Outcome run_tool(const TempDir& dir, const Words& arguments, const ToolSettings& settings) {
  const TempDir streams;  // outside the folder, so that tests can list what is in it
  const std::string out = streams / "out", err = streams / "err";
  const pid_t child = ::fork();
  if (child < 0) throw std::runtime_error("cannot fork");
  const std::string& stdout_path = settings.out.empty() ? out : settings.out;
  if (child == 0) become_tool(dir, arguments, settings, stdout_path.c_str(), err.c_str());
  int status = 0;
  ::waitpid(child, &status, 0);
  return {WIFEXITED(status) ? WEXITSTATUS(status) : 128 + WTERMSIG(status),
          settings.out.empty() ? text_of_file(out) : std::string(), text_of_file(err)};
}

Words words_of(const std::string& line) {
  Words words;
  std::string word;
  bool quoted = false, any = false;
  for (const char c : line + " ") {
    if (c == '"') {
      quoted = !quoted;
      any = true;
    } else if (c == ' ' && !quoted) {
      if (any) words.push_back(word);
      word.clear();
      any = false;
    } else {
      word += c;
      any = true;
    }
  }
  return words;
}

Words with(Words words, const Words& more) {
  words.insert(words.end(), more.begin(), more.end());
  return words;
}

}  // namespace chalcedony::test
