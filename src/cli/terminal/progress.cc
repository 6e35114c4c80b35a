#include "cli/terminal/progress.h"

#include <fmt/format.h>

#include <cstdio>

#include "io/text/printable_text.h"

namespace chalcedony::cli {
namespace {

/// Seconds as people say them.
std::string duration_text(double seconds) {
  if (seconds < 100) return fmt::format("{:.0f} s", seconds);
  if (seconds < 100 * 60) return fmt::format("{:.0f} min", seconds / 60);
  return fmt::format("{:.1f} h", seconds / 3600);
}

}  // namespace

std::string pictures_text(const PicturesDone& pictures, double seconds) {
  std::string text = fmt::format("{} of {} pictures", pictures.done, pictures.all);
  if (pictures.failed > 0) text += fmt::format(", {} failed", pictures.failed);
  if (pictures.done == 0 || seconds <= 0) return text;
  const double rate = static_cast<double>(pictures.done) / seconds;
  text += rate >= 1 ? fmt::format(", {:.3g} a second", rate)
                    : fmt::format(", {:.3g} a minute", rate * 60);
  if (pictures.done < pictures.all)
    text +=
        ", " + duration_text(static_cast<double>(pictures.all - pictures.done) / rate) + " left";
  return text;
}

bool Progress::is_due(Clock::time_point now, bool at_end) {
  using std::chrono::milliseconds;
  switch (style_) {
    case ProgressStyle::kNone:
      return false;
    case ProgressStyle::kTerminalLine:
      return !at_end && now - started_ >= milliseconds(500) && now - last_ >= milliseconds(100);
    case ProgressStyle::kLines:
      return at_end || now - last_ >= milliseconds(1000);
    case ProgressStyle::kRareLines:
      return counts_pictures_ && now - last_ >= milliseconds(30000);
  }
  return false;
}

void Progress::show(const std::string& text) {
  on_screen_ = style_ == ProgressStyle::kTerminalLine;
  if (on_screen_) {
    fmt::print(stderr, "\r\033[K{}", text);
  } else {
    fmt::print(stderr, "chalcedony: {}\n", text);
  }
  std::fflush(stderr);
}

void Progress::update(const std::string& name, std::uint64_t done, std::uint64_t all) {
  if (counts_pictures_) return;
  const auto now = Clock::now();
  if (name != name_) {
    name_ = name;
    started_ = last_ = now;
  }
  if (!is_due(now, done == all)) return;
  last_ = now;
  const double share = static_cast<double>(done) / static_cast<double>(all);
  const double passed = std::chrono::duration<double>(now - started_).count();
  show(fmt::format("{}  {:.0f} %  {} left", printable(name), 100 * share,
                   duration_text(passed * (1 - share) / share)));
}

void Progress::update(const PicturesDone& pictures) {
  const auto now = Clock::now();
  counts_pictures_ = true;
  if (pictures.done == 0) started_ = last_ = now;
  if (!is_due(now, pictures.done == pictures.all)) return;
  last_ = now;
  show(pictures_text(pictures, std::chrono::duration<double>(now - started_).count()));
}

void Progress::clear() {
  if (!on_screen_) return;
  std::fputs("\r\033[K", stderr);
  std::fflush(stderr);
  on_screen_ = false;
}

}  // namespace chalcedony::cli
