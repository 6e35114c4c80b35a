// What a run has read and written so far, picture by picture. Pictures are worked on side by side,
// so every function may be called from any thread.
#ifndef CHALCEDONY_JOB_RUN_RUN_LEDGER_H_
#define CHALCEDONY_JOB_RUN_RUN_LEDGER_H_

#include <filesystem>
#include <future>
#include <map>
#include <mutex>
#include <set>
#include <utility>
#include <vector>

#include "io/file/file_state.h"

namespace chalcedony {

/// A file as it was when it was read.
struct ReadFile {
  std::filesystem::path file;
  FileState state;
};

class RunLedger {
 public:
  /// A file that is written for one input, or for the run as a whole when `input` is empty.
  void writes(const std::filesystem::path& input, std::filesystem::path output);

  /// Takes out the files of an input that were written in the end, in order.
  std::vector<std::filesystem::path> take_written(const std::filesystem::path& input);
  /// The same for all that is left.
  std::vector<std::filesystem::path> take_all_written();

  /// Begins to find out the state of an input, beside the work on it.
  void look_at(const std::filesystem::path& input);
  /// The state of an input that is read, found out now unless it was before.
  ///
  /// Errors    as state_of()
  FileState state(const std::filesystem::path& input);
  void reads(const std::filesystem::path& input, FileState state);
  /// The state of every input that was read by then.
  std::map<std::filesystem::path, FileState> read() const;

  /// Notes a file that goes with an input, and was read for it.
  void reads_with(const std::filesystem::path& input, const std::filesystem::path& partner);
  /// Those of an input, by their names.
  ///
  /// Errors    as state_of()
  std::vector<ReadFile> partners_of(const std::filesystem::path& input);

  /// The state of a file that an option names, as it was when it was first asked for.
  ///
  /// Errors    as state_of()
  FileState named_state(const std::filesystem::path& file);

 private:
  using Written = std::pair<std::filesystem::path, std::filesystem::path>;  // input, output

  mutable std::mutex mutex_;
  std::vector<Written> written_;
  std::map<std::filesystem::path, std::future<FileState>> looked_at_;
  std::map<std::filesystem::path, FileState> read_, named_;
  std::map<std::filesystem::path, std::set<std::filesystem::path>> partners_;  // of each input
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_RUN_RUN_LEDGER_H_
