#include "job/run/failures.h"

#include <system_error>

#include "io/text/csv.h"

namespace chalcedony {

Json failure_json(const Failure& failure) {
  return {{"file", failure.file.string()}, {"error", failure.error}};
}

std::filesystem::path failures_path(const std::filesystem::path& folder) {
  return folder / "failures.csv";
}

bool write_failures(const std::filesystem::path& folder, const std::vector<Failure>& failures) {
  if (failures.empty()) {
    std::error_code error;
    std::filesystem::remove(failures_path(folder), error);
    return false;
  }
  CsvTable table({"file", "error"});
  for (const Failure& failure : failures) table.add({failure.file.string(), failure.error});
  table.write(failures_path(folder));
  return true;
}

}  // namespace chalcedony
