// A folder for files that are of use for a moment only.
#ifndef CHALCEDONY_IO_FILE_TEMPORARY_FOLDER_H_
#define CHALCEDONY_IO_FILE_TEMPORARY_FOLDER_H_

#include <filesystem>

namespace chalcedony {

/// A new, empty folder among the system's temporary files, gone with all that is in it at the end.
class TemporaryFolder {
 public:
  /// Errors    OutputError
  TemporaryFolder();
  TemporaryFolder(const TemporaryFolder&) = delete;
  TemporaryFolder& operator=(const TemporaryFolder&) = delete;
  ~TemporaryFolder();

  std::filesystem::path operator/(const std::filesystem::path& name) const { return path_ / name; }

 private:
  std::filesystem::path path_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_FILE_TEMPORARY_FOLDER_H_
