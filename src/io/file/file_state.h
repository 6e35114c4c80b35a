// What tells whether a file is still the one that was read.
#ifndef CHALCEDONY_IO_FILE_FILE_STATE_H_
#define CHALCEDONY_IO_FILE_FILE_STATE_H_

#include <cstdint>
#include <filesystem>
#include <optional>
#include <string>
#include <utility>

namespace chalcedony {

struct FileState {
  std::uint64_t bytes = 0;
  std::int64_t modified = 0;  // nanoseconds since 1970
  std::string hash;           // of what is in it, as content_hash() has it
};

/// The hash of a file's content, as 32 hexadecimal digits. It finds changes, not forgeries.
///
/// Errors    InputError when the file cannot be read
/// Source    XXH3, 128 bits (xxHash specification)
std::string content_hash(const std::filesystem::path& path);

/// What tells a file from all others on this machine, whatever name it goes by.
using FileIdentity = std::pair<std::uint64_t, std::uint64_t>;

/// Of a file that is there; following links.
std::optional<FileIdentity> identity_of(const std::filesystem::path& path);

/// All state of a file.
///
/// Errors    InputError when the file cannot be read
FileState state_of(const std::filesystem::path& path);

/// Whether a file is still there with these facts: the same size and time, or, when its content is
/// to be looked at, the same size and hash.
bool is_unchanged(const std::filesystem::path& path, const FileState& before, bool look_inside);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_FILE_FILE_STATE_H_
