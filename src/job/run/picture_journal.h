// The journal of a run over many pictures: which are done, from which files, with what result. It
// is written while the run goes on, so that a run that ended early can be resumed, and it is what
// shards are put together from. docs/formats.md specifies it.
#ifndef CHALCEDONY_JOB_RUN_PICTURE_JOURNAL_H_
#define CHALCEDONY_JOB_RUN_PICTURE_JOURNAL_H_

#include <cstddef>
#include <cstdio>
#include <filesystem>
#include <map>
#include <memory>
#include <mutex>
#include <string>
#include <vector>

#include "io/file/file_state.h"
#include "job/run/context.h"
#include "job/run/summary.h"

namespace chalcedony {

/// What became of one input.
struct JournalEntry {
  std::size_t place = 0;  // among the inputs of the whole run
  std::filesystem::path file;
  FileState state;
  std::vector<ReadFile> partners;  // that went with it
  std::vector<std::filesystem::path> outputs;
  Json summary;
  std::string error;  // the line on stderr; empty when it was done
};

/// A journal that was read: its first line, and the entries in the order of their places.
struct JournalText {
  Json header;
  std::vector<JournalEntry> entries;
};

/// `<folder>/<command>.pictures.jsonl`
std::filesystem::path journal_path(const std::filesystem::path& folder, const std::string& command);

/// Reads a journal of results in `folder`. A last line that was cut short is left out.
///
/// Errors    InputError when it is none, or from a later version
JournalText read_journal(const std::filesystem::path& path, const std::filesystem::path& folder);

/// Writes a whole journal.
///
/// Errors    OutputError
void write_journal(const std::filesystem::path& path, const std::filesystem::path& folder,
                   const JournalText& journal);

class PictureJournal {
 public:
  /// Begins the journal of a run in its output folder. With `options.resume` the entries of an
  /// earlier run with the same options are kept; when its options were others, that is a warning.
  ///
  /// Errors    OutputError
  PictureJournal(const SharedOptions& options, const Context& context);

  /// What an earlier run made of an input, if neither the input, the files that went with it nor
  /// its results changed since.
  const JournalEntry* done_before(const std::filesystem::path& input) const;

  /// Writes an entry at once. May be called from any thread.
  void add(const JournalEntry& entry);

  /// Writes the journal whole, in the order of the inputs.
  ///
  /// Errors    OutputError
  void finish(std::vector<JournalEntry> entries);

 private:
  void keep_earlier(const Context& context);

  const SharedOptions& options_;
  std::filesystem::path path_;
  Json header_;
  std::map<std::filesystem::path, JournalEntry> earlier_;
  std::mutex mutex_;
  std::unique_ptr<std::FILE, int (*)(std::FILE*)> growing_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_RUN_PICTURE_JOURNAL_H_
