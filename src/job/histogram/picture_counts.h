// What was counted of each picture of a run, for what is said of all of them.
#ifndef CHALCEDONY_JOB_HISTOGRAM_PICTURE_COUNTS_H_
#define CHALCEDONY_JOB_HISTOGRAM_PICTURE_COUNTS_H_

#include <filesystem>
#include <map>
#include <mutex>
#include <optional>
#include <string>
#include <utility>

#include "job/run/context.h"
#include "job/run/results.h"

namespace chalcedony {

/// Read from the tables of the pictures, so that it does not matter when and where these were
/// counted; kept in memory only for pictures without a table.
template <typename Counts>
class PictureCounts {
 public:
  /// The table of a picture is <stem>.THING.csv.
  PictureCounts(const SharedOptions& options, std::string thing)
      : options_(options), thing_(std::move(thing)) {}

  /// Keeps the counts of a picture that has no table. May be called from any thread.
  void keep(const std::filesystem::path& input, Counts counts) {
    const std::lock_guard lock(mutex_);
    kept_.insert_or_assign(input, std::move(counts));
  }

  /// The counts of a picture, which `read` makes of its table; none where they are not to be had.
  ///
  /// Errors    what `read` throws
  template <typename Read>
  std::optional<Counts> of(const std::filesystem::path& input, Read read) const {
    if (const auto at = kept_.find(input); at != kept_.end()) return at->second;
    std::filesystem::path table = result_stem(options_, input);
    table += "." + thing_ + ".csv";
    std::error_code error;
    if (!std::filesystem::exists(table, error)) return std::nullopt;
    return read(table);
  }

 private:
  const SharedOptions& options_;
  std::string thing_;
  std::mutex mutex_;
  std::map<std::filesystem::path, Counts> kept_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_HISTOGRAM_PICTURE_COUNTS_H_
