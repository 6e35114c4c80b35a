// Commands that are run as if they were typed in another folder.
#ifndef CHALCEDONY_CLI_REPEAT_WORKING_FOLDER_H_
#define CHALCEDONY_CLI_REPEAT_WORKING_FOLDER_H_

#include <filesystem>

namespace chalcedony::cli {

/// Makes a folder the current one while it lives.
class WorkingFolder {
 public:
  explicit WorkingFolder(const std::filesystem::path& folder)
      : home_(std::filesystem::current_path()) {
    std::filesystem::current_path(folder);
  }
  WorkingFolder(const WorkingFolder&) = delete;
  WorkingFolder& operator=(const WorkingFolder&) = delete;
  ~WorkingFolder() { std::filesystem::current_path(home_); }

 private:
  std::filesystem::path home_;
};

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_REPEAT_WORKING_FOLDER_H_
