// One run that several machines did a part of each, put together again.
#ifndef CHALCEDONY_JOB_GATHER_GATHERED_RUN_H_
#define CHALCEDONY_JOB_GATHER_GATHERED_RUN_H_

#include <filesystem>
#include <set>
#include <string>
#include <vector>

#include "job/run/context.h"
#include "job/run/picture_journal.h"
#include "job/run/shard.h"
#include "job/run/summary.h"

namespace chalcedony {

/// What one machine left of a run.
struct RunPart {
  std::filesystem::path folder;  // of its results
  Json run;                      // as its record tells it
  Shard shard;
  /// Paths into this folder, as the run wrote them down, stand for paths into the other: for steps
  /// of a recipe, which name each other's results. Empty: none do.
  std::filesystem::path recipe_folder, gathered_folder;
};

/// A run that was put together.
struct GatheredRun {
  Json run;                                    // its record
  std::vector<std::filesystem::path> outputs;  // in order
  Json inputs;                                 // those done, as records list them
  std::set<std::string> failed;
  std::size_t pictures = 0;
  Json together;  // what it says of all its pictures, as summaries have it; null where it does not
};

/// Copies the files that the parts wrote into `output`, writes the tables of all pictures and the
/// journal there, and adds the run to its record: byte by byte what one run leaves. The parts are
/// in the order of their shards and there is no other one.
///
/// Errors    InputError when parts were asked for differently, or hold a result of all pictures
///           together; OutputError
GatheredRun gather_run(const std::vector<RunPart>& parts, const std::filesystem::path& output,
                       const Context& context);

/// The journal of a part as it would be in the gathered folder.
///
/// Errors    InputError as read_journal()
JournalText journal_of(const RunPart& part, const std::filesystem::path& output);

/// Files in `folder` as a record there lists them.
Json outputs_below(const std::vector<std::filesystem::path>& files,
                   const std::filesystem::path& folder);

/// Copies a file, whole or not at all.
///
/// Errors    OutputError
void copy_into_place(const std::filesystem::path& from, const std::filesystem::path& to);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_GATHER_GATHERED_RUN_H_
