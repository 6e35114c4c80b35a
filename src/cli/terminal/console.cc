#include "cli/terminal/console.h"

#include <fmt/format.h>
#include <spdlog/sinks/stdout_sinks.h>
#include <spdlog/spdlog.h>
#include <unistd.h>

#include <csignal>

#include "cli/options/option_values.h"
#include "io/text/printable_text.h"

namespace chalcedony::cli {
namespace {

std::atomic<bool> stop_asked{false};

void ask_to_stop(int) { stop_asked.store(true, std::memory_order_relaxed); }

ProgressStyle progress_style(const po::variables_map& given) {
  const std::string when =
      one_of("--progress", text_of(given, "progress", "auto"), {"auto", "always", "never"});
  if (when == "never" || given.count("quiet")) return ProgressStyle::kNone;
  if (::isatty(STDERR_FILENO) == 1) return ProgressStyle::kTerminalLine;
  return when == "always" ? ProgressStyle::kLines : ProgressStyle::kRareLines;
}

void set_up_log(const po::variables_map& given) {
  auto logger = std::make_shared<spdlog::logger>("chalcedony",
                                                 std::make_shared<spdlog::sinks::stderr_sink_mt>());
  logger->set_pattern("chalcedony: %v");
  logger->set_level(given.count("verbose") ? spdlog::level::debug : spdlog::level::info);
  spdlog::set_default_logger(logger);
}

}  // namespace

void print_error(const std::string& line) {
  fmt::print(stderr, "chalcedony: error: {}\n", printable(line));
}

Console::Console(const po::variables_map& given)
    : quiet_(given.count("quiet") > 0),
      json_(one_of("--summary", text_of(given, "summary", "text"), {"text", "json"}) == "json"),
      progress_(progress_style(given)) {
  set_up_log(given);
  context_.stop = &stop_asked;
  context_.warn = [this](const std::string& line) {
    const std::lock_guard lock(mutex_);
    // A mask that several pictures share, or a picture that several steps of a recipe read, is
    // warned of once.
    if (quiet_ || !warned_.insert(line).second) return;
    progress_.clear();
    fmt::print(stderr, "chalcedony: warning: {}\n", printable(line));
  };
  context_.failed = [this](const std::string& line) {
    const std::lock_guard lock(mutex_);
    progress_.clear();
    print_error(line);
  };
  context_.progress = [this](const std::string& name, std::uint64_t done, std::uint64_t all) {
    const std::lock_guard lock(mutex_);
    progress_.update(name, done, all);
  };
  context_.pictures = [this](const PicturesDone& pictures) {
    const std::lock_guard lock(mutex_);
    progress_.update(pictures);
  };
}

void answer_signals() {
  std::signal(SIGINT, ask_to_stop);
  std::signal(SIGTERM, ask_to_stop);
  std::signal(SIGXFSZ, SIG_IGN);
}

}  // namespace chalcedony::cli
