// Files that are read or written in one go.
#ifndef CHALCEDONY_IO_FILE_WHOLE_FILE_H_
#define CHALCEDONY_IO_FILE_WHOLE_FILE_H_

#include <filesystem>
#include <string>
#include <string_view>

namespace chalcedony {

/// The bytes of a whole file.
///
/// Errors    InputError when it cannot be read
std::string read_file(const std::filesystem::path& path);

/// What a text begins with that some programs mark as UTF-8; no part of the text.
inline constexpr std::string_view kUtf8Mark = "\xEF\xBB\xBF";

/// A whole text, without the mark that may stand in front.
///
/// Errors    InputError when it cannot be read
std::string read_text_file(const std::filesystem::path& path);

/// Writes a whole text, or nothing.
///
/// Errors    OutputError, as AtomicFile
void write_text_file(const std::filesystem::path& path, std::string_view text);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_FILE_WHOLE_FILE_H_
