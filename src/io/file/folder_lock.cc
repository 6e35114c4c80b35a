#include "io/file/folder_lock.h"

#include <fcntl.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>

#include "core/error.h"

namespace chalcedony {
namespace {

/// Whether the file at `path` is the open one, not a later one of the same name.
bool is_same_file(int handle, const std::filesystem::path& path) {
  using Facts = struct stat;
  Facts open_one{}, named_one{};
  return ::fstat(handle, &open_one) == 0 && ::stat(path.c_str(), &named_one) == 0 &&
         open_one.st_ino == named_one.st_ino && open_one.st_dev == named_one.st_dev;
}

}  // namespace

FolderLock::FolderLock(const std::filesystem::path& folder, const std::string& command,
                       WhenHeld when_held)
    : file_(folder / (".chalcedony-" + command)) {
  while (true) {
    handle_ = ::open(file_.c_str(), O_RDWR | O_CREAT | O_CLOEXEC, 0666);
    if (handle_ < 0) return;
    if (::flock(handle_, when_held == kWait ? LOCK_EX : LOCK_EX | LOCK_NB) != 0) {
      const bool held = errno == EWOULDBLOCK;
      ::close(handle_);
      handle_ = -1;
      if (!held) return;
      throw OutputError("another run of '" + command + "' writes into this folder",
                        "wait for its end, or choose another -o", folder.string());
    }
    // A run that ended meanwhile took its file away.
    if (is_same_file(handle_, file_)) return;
    ::close(handle_);
  }
}

FolderLock::~FolderLock() {
  if (handle_ < 0) return;
  ::unlink(file_.c_str());
  ::close(handle_);
}

}  // namespace chalcedony
