#include "job/report/outdated_runs.h"

#include <algorithm>
#include <utility>

#include "job/run/run_record.h"

namespace chalcedony {
namespace {

using std::filesystem::path;

/// The results below a folder that a run has read, with what is known of each.
std::vector<std::pair<path, const Json*>> results_read(const RecordedRun& one, const path& top) {
  std::vector<std::pair<path, const Json*>> results;
  for (const Json* const known : files_read_by(one.run)) {
    path file = std::filesystem::weakly_canonical(
        file_read_at(one.run, (*known)["file"].get<std::string>(), one.folder));
    if (file.string().starts_with(top.string() + "/")) results.emplace_back(std::move(file), known);
  }
  return results;
}

}  // namespace

OutdatedRuns::OutdatedRuns(const std::vector<RecordedRun>& runs, const path& top)
    : outdated_(runs.size()) {
  std::vector<std::vector<std::pair<path, const Json*>>> read;
  for (const RecordedRun& one : runs)
    read.push_back(results_read(one, std::filesystem::weakly_canonical(top)));
  const auto mark_those = [&](bool follow, const auto& is_outdated) {
    bool some = false;
    for (std::size_t r = 0; r < runs.size(); ++r) {
      if (outdated_[r]) continue;
      const auto at = std::find_if(read[r].begin(), read[r].end(), is_outdated);
      if (at == read[r].end()) continue;
      mark(runs[r], r, {at->first.filename().string(), follow});
      some = true;
    }
    return some;
  };
  mark_those(false, [](const auto& one) { return is_another_file(*one.second, one.first); });
  while (mark_those(true, [&](const auto& one) { return wrote(one.first); })) {
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
