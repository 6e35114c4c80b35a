// how.json: what made the results in a folder, so that they can be made again.
#ifndef CHALCEDONY_JOB_RUN_RUN_RECORD_H_
#define CHALCEDONY_JOB_RUN_RUN_RECORD_H_

#include <filesystem>
#include <string>
#include <vector>

#include "job/run/context.h"
#include "job/run/summary.h"

namespace chalcedony {

/// The record of a folder.
std::filesystem::path record_path(const std::filesystem::path& folder);

/// The folder whose record a run belongs into: where its results go, which need not be there yet,
/// or, when that is one file, the folder around it if a record is kept there. Empty for none.
std::filesystem::path recorded_folder(const SharedOptions& options);

/// Writes a run that has ended into how.json of its results folder, after the runs before it; what
/// it has written again is no longer theirs, and a run that nothing is left of goes. A run that is
/// there to the letter stays where it is. Does nothing without an output folder; when -o named a
/// file, only if its folder has a record already. docs/formats.md specifies the file.
///
/// Errors    InputError when how.json there is none, or an input is gone; OutputError
void record_run(const SharedOptions& options, const Context& context, const Json& summary);

/// Adds a run to the record of a folder, as record_run() does.
///
/// Errors    OutputError
void add_to_record(const std::filesystem::path& folder, Json run);

/// folder_to_mark() for a run that is to be recorded in `folder`, whose `outputs` are told by their
/// paths below it already.
Json run_to_mark(Json run, const std::filesystem::path& folder);

/// A folder as seen from the folder of results.
std::string asked_from(const std::filesystem::path& place, const std::filesystem::path& folder);

/// The folder a run was typed in, as it is found from the folder of its record.
std::filesystem::path typed_in(const Json& run, const std::filesystem::path& folder);

/// The runs in a record, oldest first, as they are stored.
///
/// Errors    InputError when the file is no record, or from a later version
std::vector<Json> read_record(const std::filesystem::path& file);

/// Writes a record.
///
/// Errors    OutputError
void write_record(const std::filesystem::path& file, const std::vector<Json>& runs);

/// Whether a file is a record, by its name.
bool is_record_name(const std::filesystem::path& file);

/// The words that stand for a run when its results go to `output`, its folder or file: the
/// command, its operands and options, and -o.
std::vector<std::string> words_of_run(const Json& run, const std::filesystem::path& output);

/// What is known of the files that a run has read: its inputs, what went with them, and what its
/// options name. The run must outlive them.
std::vector<const Json*> files_read_by(const Json& run);

/// Where such a file is, for a run of the record of `folder`: marked, as it was typed, or absolute.
std::filesystem::path file_read_at(const Json& run, const std::string& file,
                                   const std::filesystem::path& folder);

/// Whether a file is another one now than this says of it; not when it is gone.
bool is_another_file(const Json& known, const std::filesystem::path& file);

/// Checks that what the runs of a record have read is still as it was, results in their folder
/// aside, and that no run has read a result before another has written it again.
///
/// Errors    InputError that names the first file of which that is not so
void check_files_of_runs(const std::vector<Json>& runs, const std::filesystem::path& folder);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_RUN_RUN_RECORD_H_
