// A palette as a strip of color, each color as wide as its share.
#ifndef CHALCEDONY_IO_DOCUMENT_PALETTE_SWATCHES_H_
#define CHALCEDONY_IO_DOCUMENT_PALETTE_SWATCHES_H_

#include <cstdint>
#include <filesystem>
#include <string>
#include <vector>

#include "core/palette/palette.h"

namespace chalcedony {

/// Where each color ends, in columns of a strip `width` wide; the last one ends there.
std::vector<std::uint32_t> swatch_ends(const Palette& palette, std::uint32_t width);

/// SVG with name, value and share of each color, where there is room as text, else as a tip.
std::string swatches_svg(const Palette& palette);

/// The strip alone as PNG.
void write_swatches(const std::filesystem::path& path, const Palette& palette);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_DOCUMENT_PALETTE_SWATCHES_H_
