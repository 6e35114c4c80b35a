// Color tables on disk: the distinct colors of pictures with their pixels, which add up.
#ifndef CHALCEDONY_IO_DOCUMENT_COLOR_TABLE_FILE_H_
#define CHALCEDONY_IO_DOCUMENT_COLOR_TABLE_FILE_H_

#include <cstdint>
#include <filesystem>
#include <vector>

#include "core/color/space.h"

namespace chalcedony {

/// 8-bit colors of an RGB space, no two alike, each with how many pixels have it.
struct StoredColors {
  const Space* space = &spaces::kSrgb;
  std::vector<std::uint8_t> rgb;  // interleaved
  std::vector<std::uint64_t> pixels;

  std::uint64_t all_pixels() const;
};

/// Writes a table, in the order of red, green and blue (docs/formats.md).
///
/// Errors    OutputError
void write_color_table(const std::filesystem::path& path, const StoredColors& colors);

/// Errors    InputError for a file that is none
StoredColors read_color_table(const std::filesystem::path& path);

/// The sum of tables of one space.
///
/// Errors    InputError for a file that is none, or of another space than the first
StoredColors added_color_tables(const std::vector<std::filesystem::path>& paths);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_DOCUMENT_COLOR_TABLE_FILE_H_
