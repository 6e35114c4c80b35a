#include "io/file/atomic_file.h"

#include <unistd.h>

#include <atomic>
#include <cerrno>
#include <cstring>
#include <string>
#include <utility>

#include "core/error.h"

namespace chalcedony {
namespace {

/// Different for every file of every running process, so that two runs do not meet.
std::string temporary_name(const std::filesystem::path& path) {
  static std::atomic<unsigned> number{0};
  return "." + path.filename().string() + "." + std::to_string(::getpid()) + "-" +
         std::to_string(number++) + ".part";
}

}  // namespace

AtomicFile::AtomicFile(std::filesystem::path path)
    : path_(std::move(path)), temporary_(path_.parent_path() / temporary_name(path_)) {
  stream_ = std::fopen(temporary_.c_str(), "wb");
  if (!stream_) fail("cannot be written");
}

AtomicFile::~AtomicFile() {
  if (!stream_) return;
  std::fclose(stream_);
  std::error_code ignored;
  std::filesystem::remove(temporary_, ignored);
}

void AtomicFile::fail(const char* what) const {
  const std::string reason = std::strerror(errno);
  const bool full = errno == ENOSPC || errno == EDQUOT;
  throw OutputError(std::string(what) + " (" + reason + ")",
                    full ? "make room on the disk or choose another -o"
                         : "check that the folder exists and may be written",
                    path_.string());
}

void AtomicFile::write(std::span<const std::byte> bytes) {
  if (std::fwrite(bytes.data(), 1, bytes.size(), stream_) != bytes.size())
    fail("cannot be written");
}

void AtomicFile::write(std::string_view text) { write(std::as_bytes(std::span(text))); }

void AtomicFile::commit() {
  if (std::fflush(stream_) != 0) fail("cannot be written");
  const int closed = std::fclose(stream_);
  stream_ = nullptr;
  std::error_code error;
  if (closed == 0) std::filesystem::rename(temporary_, path_, error);
  if (closed != 0 || error) {
    if (error) errno = error.value();
    std::error_code ignored;
    const int reason = errno;
    std::filesystem::remove(temporary_, ignored);
    errno = reason;
    fail("cannot be written");
  }
}

}  // namespace chalcedony
