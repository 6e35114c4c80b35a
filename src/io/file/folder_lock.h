// Keeps two runs from writing the same results at once.
#ifndef CHALCEDONY_IO_FILE_FOLDER_LOCK_H_
#define CHALCEDONY_IO_FILE_FOLDER_LOCK_H_

#include <filesystem>
#include <string>

namespace chalcedony {

/// Holds a folder for the runs of one command while it lives, by a hidden file that is locked and
/// removed at the end. The lock of a run that was killed is free again at once.
class FolderLock {
 public:
  enum WhenHeld { kRefuse, kWait };

  /// Errors    OutputError when another run holds it and is not waited for. None when locks are not
  ///           known there or the file cannot be made: what is written next says so
  FolderLock(const std::filesystem::path& folder, const std::string& command,
             WhenHeld when_held = kRefuse);
  FolderLock(const FolderLock&) = delete;
  FolderLock& operator=(const FolderLock&) = delete;
  ~FolderLock();

 private:
  std::filesystem::path file_;
  int handle_ = -1;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_FILE_FOLDER_LOCK_H_
