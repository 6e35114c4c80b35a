#include "cli/progress.h"

#include <fmt/format.h>

#include <cstdio>

namespace chalcedony::cli {

void Progress::update(const std::string& name, std::uint64_t done, std::uint64_t all) {
  using std::chrono::milliseconds;
  if (!shown_) return;
  const auto now = Clock::now();
  if (name != name_) {
    name_ = name;
    started_ = now;
  }
  if (now - started_ < milliseconds(500) || now - last_ < milliseconds(100)) return;
  last_ = now;
  on_screen_ = true;
  const double share = static_cast<double>(done) / static_cast<double>(all);
  const double passed = std::chrono::duration<double>(now - started_).count();
  fmt::print(stderr, "\r\033[K{}  {:.0f} %  {:.0f} s left", name, 100 * share,
             passed * (1 - share) / share);
  std::fflush(stderr);
}

void Progress::clear() {
  if (!on_screen_) return;
  std::fputs("\r\033[K", stderr);
  std::fflush(stderr);
  on_screen_ = false;
}

}  // namespace chalcedony::cli
