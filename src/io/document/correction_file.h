// Color corrections on disk: JSON, specified in docs/formats.md.
#ifndef CHALCEDONY_IO_DOCUMENT_CORRECTION_FILE_H_
#define CHALCEDONY_IO_DOCUMENT_CORRECTION_FILE_H_

#include <filesystem>
#include <string>
#include <string_view>

#include "core/balance/color_correction.h"

namespace chalcedony {

/// The highest version this program reads; it writes 1 where no tone curve is undone.
inline constexpr int kCorrectionVersion = 2;

/// A correction as JSON text; every number reads back exactly.
std::string correction_text(const ColorCorrection& correction);

/// Errors    InputError: no correction, from a later version, a matrix that loses colors, a tone
///           curve that falls
ColorCorrection parse_correction(std::string_view text);

/// Errors    InputError with the file's name
ColorCorrection read_correction(const std::filesystem::path& path);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_DOCUMENT_CORRECTION_FILE_H_
