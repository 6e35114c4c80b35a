// The runs that a folder of results and those below it have a record of.
#ifndef CHALCEDONY_JOB_REPORT_RECORDED_RUNS_H_
#define CHALCEDONY_JOB_REPORT_RECORDED_RUNS_H_

#include <filesystem>
#include <vector>

#include "job/run/summary.h"

namespace chalcedony {

/// A run and the folder it wrote into.
struct RecordedRun {
  std::filesystem::path folder;
  Json run;
};

/// Folder by folder in natural order, in each the oldest first.
///
/// Errors    InputError when there is no record, and as read_record()
std::vector<RecordedRun> runs_below(const std::filesystem::path& top);

/// Whether a file lies in a folder or in one below it.
bool lies_below(const std::filesystem::path& file, const std::filesystem::path& folder);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_REPORT_RECORDED_RUNS_H_
