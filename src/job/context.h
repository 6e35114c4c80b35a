// What every job is given beside its own options.
#ifndef CHALCEDONY_JOB_CONTEXT_H_
#define CHALCEDONY_JOB_CONTEXT_H_

#include <atomic>
#include <cstdint>
#include <filesystem>
#include <functional>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/color/space.h"
#include "core/pixel/region.h"
#include "figure/plot.h"

namespace chalcedony {

/// The options that mean the same for every command.
struct SharedOptions {
  std::string command;  // which one runs
  std::vector<std::filesystem::path> inputs;
  std::map<std::filesystem::path, std::filesystem::path> below;  // of inputs found in folders:
                                                                 // where their results go below -o
  std::filesystem::path output;                                  // empty: only the summary
  std::vector<std::string> write;                                // which results; empty: all
  std::optional<Region> region;                                  // count only pixels inside
  std::optional<std::filesystem::path> within;                   // count only where this mask is on
  bool count_transparent = false;        // count fully transparent pixels too
  double hue_floor = 0;                  // percent; see ChannelPlan
  const Space* assume = &spaces::kSrgb;  // for files that do not say their space
  std::optional<FigureFormat> figures;   // not given: png for up to 20 inputs
  unsigned threads = 0;                  // 0: all there are
  std::uint64_t max_pixels = 0;          // 0: no limit
  std::uint64_t seed = 1;                // of everything that is drawn at random
  bool clobber = true;                   // replace outputs that exist
};

/// How a job talks to whoever runs it. Every function may be called from the job's own thread
/// only, and must not throw.
struct Context {
  std::function<void(const std::string&)> warn = [](const std::string&) {};
  std::function<void(const std::string&)> failed = [](const std::string&) {};
  /// Rows done of an input; called often.
  std::function<void(const std::string& name, std::uint64_t done, std::uint64_t all)> progress;
  const std::atomic<bool>* stop = nullptr;
};

/// The same without warnings, for a file that is opened again.
inline Context without_warnings(Context context) {
  context.warn = [](const std::string&) {};
  return context;
}

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_CONTEXT_H_
