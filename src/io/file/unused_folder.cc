#include "io/file/unused_folder.h"

#include <system_error>

namespace chalcedony {

namespace fs = std::filesystem;

UnusedFolder::UnusedFolder(const fs::path& folder) {
  std::error_code error;
  // The run may go elsewhere.
  fs::path at = fs::absolute(folder, error).lexically_normal();
  if (!at.has_filename()) at = at.parent_path();
  for (; at.has_filename() && !fs::exists(fs::symlink_status(at, error)); at = at.parent_path())
    missing_.push_back(at);
}

UnusedFolder::~UnusedFolder() {
  std::error_code error;
  for (const fs::path& folder : missing_) {
    const fs::file_status status = fs::symlink_status(folder, error);
    if (!fs::exists(status)) continue;
    // The innermost may be a file, where a command writes one; a folder that holds something is not
    // removed.
    if (!fs::is_directory(status) || !fs::remove(folder, error)) return;
  }
}

}  // namespace chalcedony
