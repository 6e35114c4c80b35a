// How far the work is: one line on the terminal, plain lines elsewhere.
#ifndef CHALCEDONY_CLI_TERMINAL_PROGRESS_H_
#define CHALCEDONY_CLI_TERMINAL_PROGRESS_H_

#include <chrono>
#include <cstdint>
#include <string>

#include "job/run/context.h"

namespace chalcedony::cli {

/// Where and how often progress is shown.
enum class ProgressStyle {
  kNone,
  kTerminalLine,  // one line, at most ten times a second, none for work that ends in half a second
  kLines,         // for logs: a line of its own every second
  kRareLines      // the same every half minute, of several pictures only
};

/// Not safe to be called from several threads at once.
class Progress {
 public:
  explicit Progress(ProgressStyle style) : style_(style) {}
  ~Progress() { clear(); }

  /// Rows of one picture.
  void update(const std::string& name, std::uint64_t done, std::uint64_t all);
  /// Pictures of several: done, failed, how many a second, and the time left.
  void update(const PicturesDone& pictures);
  /// Takes the line away, so that other text can stand there.
  void clear();

 private:
  using Clock = std::chrono::steady_clock;

  bool is_due(Clock::time_point now, bool at_end);
  void show(const std::string& text);

  ProgressStyle style_;
  bool on_screen_ = false;
  bool counts_pictures_ = false;
  std::string name_;
  Clock::time_point started_ = Clock::now();
  Clock::time_point last_ = started_;
};

/// `12 of 200 pictures, 1 failed, 14.2 a second, 13 s left`
std::string pictures_text(const PicturesDone& pictures, double seconds);

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_TERMINAL_PROGRESS_H_
