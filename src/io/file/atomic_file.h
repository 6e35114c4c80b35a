// A file that appears whole or not at all.
#ifndef CHALCEDONY_IO_FILE_ATOMIC_FILE_H_
#define CHALCEDONY_IO_FILE_ATOMIC_FILE_H_

#include <cstddef>
#include <cstdio>
#include <filesystem>
#include <span>
#include <string>
#include <string_view>

namespace chalcedony {

/// Writes to a temporary name in the same folder and renames it at commit(). Without commit() the
/// temporary file is removed and whatever stood under the final name stays.
class AtomicFile {
 public:
  /// Errors    OutputError when the folder cannot be written
  explicit AtomicFile(std::filesystem::path path);
  AtomicFile(const AtomicFile&) = delete;
  AtomicFile& operator=(const AtomicFile&) = delete;
  ~AtomicFile();

  const std::filesystem::path& path() const { return path_; }
  /// Where the bytes go until commit(), for libraries that open files themselves.
  const std::filesystem::path& temporary_path() const { return temporary_; }

  /// Errors    OutputError when the disk is full
  void write(std::span<const std::byte> bytes);
  void write(std::string_view text);
  std::FILE* stream() { return stream_; }

  /// Errors    OutputError when the last bytes or the new name cannot be written
  void commit();

 private:
  [[noreturn]] void fail(const char* what) const;

  std::filesystem::path path_;
  std::filesystem::path temporary_;
  std::FILE* stream_ = nullptr;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_FILE_ATOMIC_FILE_H_
