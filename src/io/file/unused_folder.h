// A folder for results that never came.
#ifndef CHALCEDONY_IO_FILE_UNUSED_FOLDER_H_
#define CHALCEDONY_IO_FILE_UNUSED_FOLDER_H_

#include <filesystem>
#include <vector>

namespace chalcedony {

/// Takes a folder away at the end, and those around it, if they were not there at the beginning and
/// hold nothing: a run that fails before its first result leaves none. Folders only; what is empty
/// for others stays.
class UnusedFolder {
 public:
  explicit UnusedFolder(const std::filesystem::path& folder);
  UnusedFolder(const UnusedFolder&) = delete;
  UnusedFolder& operator=(const UnusedFolder&) = delete;
  ~UnusedFolder();

 private:
  std::vector<std::filesystem::path> missing_;  // the innermost first
};

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_FILE_UNUSED_FOLDER_H_
