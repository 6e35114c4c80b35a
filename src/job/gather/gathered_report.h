// What a gathered run says and draws of all its pictures, as one run does.
#ifndef CHALCEDONY_JOB_GATHER_GATHERED_REPORT_H_
#define CHALCEDONY_JOB_GATHER_GATHERED_REPORT_H_

#include <filesystem>
#include <vector>

#include "job/run/context.h"
#include "job/run/picture_journal.h"
#include "job/run/summary.h"

namespace chalcedony {

struct GatheredReport {
  Json together;                             // as summaries have it; null where there is none
  std::vector<std::filesystem::path> files;  // that were written
};

/// Of a run's record and the entries of its pictures: what classes or a selection take of all of
/// them, what tells classes apart in all of them, and the figure of all, of spots and histograms
/// too, in `output` where the run was asked for figures. Nothing of commands that have neither.
///
/// Errors    OutputError
GatheredReport report_gathered(const Json& run, const std::vector<JournalEntry>& pictures,
                               const std::filesystem::path& output, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_GATHER_GATHERED_REPORT_H_
