// Palettes as files: JSON to read back, CSV to count with, CSS to design with.
#ifndef CHALCEDONY_IO_DOCUMENT_PALETTE_FILE_H_
#define CHALCEDONY_IO_DOCUMENT_PALETTE_FILE_H_

#include <filesystem>
#include <nlohmann/json.hpp>
#include <string>
#include <string_view>
#include <vector>

#include "core/palette/look_alikes.h"
#include "core/palette/palette.h"

namespace chalcedony {

inline constexpr int kPaletteVersion = 1;

/// That a palette to repaint with may have: a byte holds the number of each, and 0 for none.
inline constexpr std::size_t kMostPaletteColors = 255;

/// The colors of a palette with all that is known of them; docs/summaries.md has the fields.
nlohmann::ordered_json palette_json(const Palette& palette);

/// The palette of the picture `name` as JSON; docs/formats.md has the fields.
std::string palette_text(const Palette& palette, std::string_view name);

/// The colors of a palette that palette_text() wrote, or of a text with one CSS color a line.
///
/// Errors    InputError when it is neither, holds no color or more than 255
std::vector<Color> parse_palette_colors(std::string_view text);

/// Errors    as parse_palette_colors, with the path; InputError when it cannot be read
std::vector<Color> read_palette_colors(const std::filesystem::path& path);

/// One row for each color.
void write_palette_table(const std::filesystem::path& path, const Palette& palette);

/// The contrast ratios of all colors with black, white and each other.
void write_contrasts(const std::filesystem::path& path, const Palette& palette);

/// How far apart every two colors are, to full color vision and with each deficiency.
void write_differences(const std::filesystem::path& path, const Palette& palette,
                       const std::vector<SeenPair>& pairs);

/// CSS custom properties `--STEM-1`, ..., and for each the color of text on it, `--STEM-1-text`.
std::string palette_css(const Palette& palette, std::string_view stem);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_DOCUMENT_PALETTE_FILE_H_
