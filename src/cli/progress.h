// How far the work is, on one line of the terminal.
#ifndef CHALCEDONY_CLI_PROGRESS_H_
#define CHALCEDONY_CLI_PROGRESS_H_

#include <chrono>
#include <cstdint>
#include <string>

namespace chalcedony::cli {

/// Shows nothing for work that ends within half a second, then at most ten times a second.
class Progress {
 public:
  explicit Progress(bool shown) : shown_(shown) {}
  ~Progress() { clear(); }

  void update(const std::string& name, std::uint64_t done, std::uint64_t all);
  /// Takes the line away, so that other text can stand there.
  void clear();

 private:
  using Clock = std::chrono::steady_clock;

  bool shown_;
  bool on_screen_ = false;
  std::string name_;
  Clock::time_point started_ = Clock::now();
  Clock::time_point last_;
};

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_PROGRESS_H_
