// Runs whose results are not of what is there now: of a map that was made again since, a model that
// has learned anew.
#ifndef CHALCEDONY_JOB_REPORT_OUTDATED_RUNS_H_
#define CHALCEDONY_JOB_REPORT_OUTDATED_RUNS_H_

#include <cstddef>
#include <filesystem>
#include <optional>
#include <set>
#include <string>
#include <vector>

#include "job/report/recorded_runs.h"

namespace chalcedony {

/// Why the results of a run are outdated.
struct OutdatedBy {
  std::string file;      // the name of a result that the run has read
  bool follows = false;  // it is as it was, but outdated itself
};

class OutdatedRuns {
 public:
  /// Looks at what the runs have read in the folder `top` and those below it, by its content.
  ///
  /// Errors    InputError when a file that is there cannot be read
  OutdatedRuns(const std::vector<RecordedRun>& runs, const std::filesystem::path& top);

  /// Of each run in order; nothing where its results are of what is there.
  const std::optional<OutdatedBy>& of(std::size_t run) const { return outdated_[run]; }
  std::size_t count() const;

  /// Whether an outdated run wrote a file.
  bool wrote(const std::filesystem::path& file) const;

 private:
  void mark(const RecordedRun& run, std::size_t place, OutdatedBy why);

  std::vector<std::optional<OutdatedBy>> outdated_;
  std::set<std::filesystem::path> written_;  // by outdated runs
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_REPORT_OUTDATED_RUNS_H_
