// What every job is given beside its own options.
#ifndef CHALCEDONY_JOB_RUN_CONTEXT_H_
#define CHALCEDONY_JOB_RUN_CONTEXT_H_

#include <algorithm>
#include <array>
#include <atomic>
#include <cstddef>
#include <cstdint>
#include <filesystem>
#include <functional>
#include <map>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/channel/channel.h"
#include "core/channel/quoted_channel.h"
#include "core/color/space.h"
#include "core/pixel/region.h"
#include "figure/plot/plot.h"
#include "io/document/sample_file.h"
#include "job/run/run_ledger.h"
#include "job/run/shard.h"

namespace chalcedony {

class PartnerFiles;

/// An option as it was typed: its values, or none for one that has no value.
struct TypedOption {
  std::string name;
  std::vector<std::string> values;
  bool names_files = false;  // a value may be a file, or hold the name of one
};

/// The options that mean the same for every command.
struct SharedOptions {
  std::string command;                // which one runs
  std::vector<std::string> operands;  // as they were typed
  std::vector<TypedOption> typed;     // what has a say in the results, by name
  std::vector<std::filesystem::path> inputs;
  std::map<std::filesystem::path, std::filesystem::path> below;  // of inputs found in folders:
                                                                 // where their results go below -o
  std::filesystem::path output;                                  // empty: only the summary
  std::vector<std::string> write;                                // which results; empty: all
  std::optional<Region> region;                                  // count only pixels inside
  std::shared_ptr<const PartnerFiles> within;  // count only where the mask of the picture is on
  std::vector<std::string> within_classes;     // or where its class map has these
  double full_scale = 0;                       // the code of integers that is full; 0: all bits set
  std::optional<std::array<std::uint32_t, 3>> bands;  // the stored channels that are r, g and b
  std::size_t page = 0;            // of files with several pictures; 0: the first
  bool count_transparent = false;  // count fully transparent pixels too
  ChannelNames names;              // channels that --let defines, and whose space --space names
  double hue_floor = 0;            // percent; see ChannelPlan
  QuotedUnits units = QuotedUnits::kOwn;  // of values that are read out
  const Space* assume = nullptr;          // for files that do not say their space; null: sRGB
  std::optional<FigureFormat> figures;    // not given: see figure_formats()
  unsigned threads = 0;                   // 0: all there are
  std::uint64_t max_pixels = 0;           // 0: no limit
  std::uint64_t seed = 1;                 // of everything that is drawn at random
  bool clobber = true;                    // replace outputs that exist
  OtherSize samples_of_other_size = OtherSize::kError;
  bool skip_bad = false;       // of several inputs, leave out those that are bad
  bool resume = false;         // leave out pictures that are done and unchanged,
  bool verify = false;         // seen by their content, not by size and time
  std::optional<Shard> shard;  // do only a part of the inputs

  /// Whether --write names this result.
  bool asks_for(std::string_view result) const {
    return std::find(write.begin(), write.end(), result) != write.end();
  }
};

/// How far a run over several pictures is.
struct PicturesDone {
  std::size_t done = 0;  // those that failed are among them
  std::size_t failed = 0;
  std::size_t all = 0;
};

/// How a job talks to whoever runs it. Every function may be called from any thread, and must not
/// throw.
struct Context {
  std::function<void(const std::string&)> warn = [](const std::string&) {};
  std::function<void(const std::string&)> failed = [](const std::string&) {};
  /// Rows done of an input; called often.
  std::function<void(const std::string& name, std::uint64_t done, std::uint64_t all)> progress;
  /// Called when a picture of several is done.
  std::function<void(const PicturesDone&)> pictures;
  const std::atomic<bool>* stop = nullptr;
  /// Where each input stands among those of the whole run, when they are a part of it already: a
  /// step of a recipe that is run in shards. Empty: the inputs are all there are.
  std::vector<std::size_t> places;
  /// What the run reads and writes; copies of a context share it.
  std::shared_ptr<RunLedger> ledger = std::make_shared<RunLedger>();
};

/// The same without warnings, for a file that is opened again.
inline Context without_warnings(Context context) {
  context.warn = [](const std::string&) {};
  return context;
}

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_RUN_CONTEXT_H_
