#include "job/report/outdated_runs.h"

#include <algorithm>
#include <utility>

#include "job/run/run_record.h"

namespace chalcedony {
namespace {

using std::filesystem::path;

/// A result that a run has read, and what is known of it.
struct ResultRead {
  path file;  // canonical
  const Json* known;
};

/// Those in a folder and below it.
std::vector<ResultRead> results_read(const RecordedRun& one, const path& top) {
  std::vector<ResultRead> results;
  for (const Json* const known : files_read_by(one.run)) {
    const path file = file_read_at(one.run, (*known)["file"].get<std::string>(), one.folder);
    if (lies_below(file, top)) results.push_back({std::filesystem::weakly_canonical(file), known});
  }
  return results;
}

}  // namespace

OutdatedRuns::OutdatedRuns(const std::vector<RecordedRun>& runs, const path& top)
    : outdated_(runs.size()) {
  std::vector<std::vector<ResultRead>> read;
  for (const RecordedRun& one : runs) read.push_back(results_read(one, top));
  const auto mark_those = [&](bool follow, const auto& is_outdated) {
    bool some = false;
    for (std::size_t r = 0; r < runs.size(); ++r) {
      if (outdated_[r]) continue;
      const auto at = std::find_if(read[r].begin(), read[r].end(), is_outdated);
      if (at == read[r].end()) continue;
      mark(runs[r], r, {at->file.filename().string(), follow});
      some = true;
    }
    return some;
  };
  mark_those(false, [](const ResultRead& one) { return is_another_file(*one.known, one.file); });
  while (mark_those(true, [&](const ResultRead& one) { return written_.count(one.file) > 0; })) {
  }
}

std::size_t OutdatedRuns::count() const {
  return static_cast<std::size_t>(std::count_if(outdated_.begin(), outdated_.end(),
                                                [](const auto& one) { return one.has_value(); }));
}

bool OutdatedRuns::wrote(const path& file) const {
  return written_.count(std::filesystem::weakly_canonical(file)) > 0;
}

void OutdatedRuns::mark(const RecordedRun& run, std::size_t place, OutdatedBy why) {
  outdated_[place] = std::move(why);
  for (const Json& output : run.run["outputs"])
    written_.insert(std::filesystem::weakly_canonical(run.folder / output.get<std::string>()));
}

}  // namespace chalcedony
