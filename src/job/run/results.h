// Where the results of a job go, and under which names.
#ifndef CHALCEDONY_JOB_RUN_RESULTS_H_
#define CHALCEDONY_JOB_RUN_RESULTS_H_

#include <filesystem>
#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "io/file/file_state.h"
#include "io/file/folder_lock.h"
#include "job/run/context.h"
#include "job/run/result_kind.h"
#include "job/run/summary.h"

namespace chalcedony {

/// Whose names results bear.
enum class ResultNames {
  kRun,       // none of an input
  kPictures,  // those of the input pictures; tables that stand for pictures have none of their own
  kInputs     // those of all inputs
};

/// Keeps inputs, and what --no-clobber keeps, from being written over.
class OutputGuard {
 public:
  explicit OutputGuard(const SharedOptions& options);

  /// May be called from any thread.
  ///
  /// Errors    OutputError when the file exists and is to be kept, or is an input
  void check(const std::filesystem::path& path) const;

 private:
  bool clobber_;
  std::vector<FileIdentity> inputs_;  // sorted
};

/// The result files of a run in its output folder.
class Results {
 public:
  /// Makes the folder, and keeps it from other runs of the command. `kinds` are what the command
  /// can write.
  ///
  /// Errors    UsageError for a --write name that is none of `kinds` or has no such result with
  ///           the options given, two inputs whose results would bear one name, or an -o that is
  ///           the name of a file; OutputError when the folder cannot be made, or another run of
  ///           the command writes into it
  Results(const SharedOptions& options, const Context& context,
          const std::vector<ResultKind>& kinds, ResultNames names = ResultNames::kInputs);

  /// Whether this result is to be written at all.
  bool wants(std::string_view kind) const;
  /// The same of a result of all pictures together, which a shard does not have.
  bool wants_of_all(std::string_view kind) const { return !options_.shard && wants(kind); }

  /// The path of `<stem>.<thing>.<ext>` for an input, which the ledger then knows. May be called
  /// from any thread.
  ///
  /// Errors    OutputError when it exists and is to be kept, or is an input itself
  std::filesystem::path path(const std::filesystem::path& input, std::string_view thing,
                             std::string_view extension) const;
  /// The path of a result of an input that bears another name than the input's stem, maybe in a
  /// folder below.
  std::filesystem::path path(const std::filesystem::path& input, const std::string& name) const;
  /// The path of a result of the whole run.
  std::filesystem::path path(const std::string& name) const;

  /// Moves the names of the files that were written, and are not in the summary yet, into it.
  void report(Json& summary) const;

 private:
  std::filesystem::path of_input(const std::filesystem::path& input,
                                 const std::filesystem::path& path) const;

  SharedOptions options_;
  OutputGuard guard_;
  std::shared_ptr<RunLedger> ledger_;
  std::unique_ptr<FolderLock> lock_;
};

/// Makes a folder and those above it.
///
/// Errors    OutputError
void make_folder(const std::filesystem::path& folder);

/// Whether a path is the name of a file by its ending, and no folder of that name is there.
bool names_file(const std::filesystem::path& path);

/// Makes the folder that -o names.
///
/// Errors    UsageError when that is the name of a file; OutputError
void make_results_folder(const std::filesystem::path& output);

/// The folder below -o for the results of an input that was found in a folder below; else empty.
std::filesystem::path folder_below(const SharedOptions& options,
                                   const std::filesystem::path& input);

/// Where the results of an input go: <output>/<the input's folder below>/<stem>.
std::filesystem::path result_stem(const SharedOptions& options, const std::filesystem::path& input);

/// Errors    UsageError when two inputs would write the same names
void check_stems(const SharedOptions& options, ResultNames names = ResultNames::kInputs);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_RUN_RESULTS_H_
