#include "job/report/recorded_runs.h"

#include <algorithm>
#include <string>
#include <utility>

#include "core/error.h"
#include "core/natural_order.h"
#include "job/run/run_record.h"

namespace chalcedony {
namespace {

using std::filesystem::path;

/// The folder and those below it that hold a record.
std::vector<path> recorded_folders(const path& top) {
  std::vector<path> folders;
  std::error_code error;
  if (std::filesystem::exists(record_path(top), error)) folders.push_back(top);
  for (const auto& entry : std::filesystem::recursive_directory_iterator(top, error))
    if (entry.is_directory() && std::filesystem::exists(record_path(entry.path()), error))
      folders.push_back(entry.path());
  std::sort(folders.begin(), folders.end(),
            [](const path& a, const path& b) { return comes_before(a.string(), b.string()); });
  return folders;
}

}  // namespace

std::vector<RecordedRun> runs_below(const path& top) {
  std::vector<RecordedRun> runs;
  for (const path& folder : recorded_folders(top))
    for (Json& run : read_record(record_path(folder))) runs.push_back({folder, std::move(run)});
  if (runs.empty())
    throw InputError("holds no how.json, and neither does a folder below it",
                     "give a folder that commands wrote into", top.string());
  return runs;
}

bool lies_below(const path& file, const path& folder) {
  const std::string top = std::filesystem::weakly_canonical(folder).string() + "/";
  return std::filesystem::weakly_canonical(file).string().starts_with(top);
}

}  // namespace chalcedony
