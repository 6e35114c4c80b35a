// What is written down of a run so that it can be told from others and made again: shared by the
// journal of its pictures and by how.json.
#ifndef CHALCEDONY_JOB_RUN_RUN_FACTS_H_
#define CHALCEDONY_JOB_RUN_RUN_FACTS_H_

#include <filesystem>
#include <string>
#include <vector>

#include "io/file/file_state.h"
#include "job/run/context.h"
#include "job/run/summary.h"

namespace chalcedony {

/// The version of this program.
std::string program_version();

/// `program`, `command`, `operands`, `options`, `seed`, `files` (those that options name, with
/// their facts), and `shard` where there is one. Paths into the output folder are marked.
///
/// Errors    InputError when a file that is named cannot be read any more
Json asked_json(const SharedOptions& options, RunLedger& ledger);

/// The `options` of such a run as they were typed; names of files are as the record has them.
std::vector<TypedOption> options_asked(const Json& options);

/// `file`, `bytes` and `hash`.
Json file_json(const std::filesystem::path& file, const FileState& state);

/// The same of an input, and of the files that went with it in `with`, where there are some.
Json input_json(const std::filesystem::path& input, const FileState& state,
                const std::vector<ReadFile>& partners);

/// The text that stands for the results folder in what is written down, so that it does not depend
/// on where the folder is.
inline constexpr const char* kFolderMark = "{out}";

/// The same JSON with every text that is a path into `folder` beginning with the mark instead, or
/// being it where the folder itself is meant; and back again.
Json folder_to_mark(Json json, const std::filesystem::path& folder);
Json mark_to_folder(Json json, const std::filesystem::path& folder);

/// A folder as paths into it begin: without a slash at its end.
std::string folder_text(const std::filesystem::path& folder);

/// The same JSON with every text that is a path into `from` as a path into `to`; `from` may be
/// empty for none.
Json moved_paths(Json json, const std::filesystem::path& from, const std::filesystem::path& to);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_RUN_RUN_FACTS_H_
