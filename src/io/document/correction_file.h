// Color corrections on disk: JSON, specified in docs/formats.md.
#ifndef CHALCEDONY_IO_DOCUMENT_CORRECTION_FILE_H_
#define CHALCEDONY_IO_DOCUMENT_CORRECTION_FILE_H_

#include <filesystem>
#include <string>
#include <string_view>

#include "core/color/affine.h"

namespace chalcedony {

/// The version this program writes and the highest it reads.
inline constexpr int kCorrectionVersion = 1;

/// A correction of XYZ with the white D50, without a shift, as JSON text; every number reads back
/// exactly.
std::string correction_text(const Affine& correction);

/// Errors    InputError: no correction, from a later version, a matrix that loses colors
Affine parse_correction(std::string_view text);

/// Errors    InputError with the file's name
Affine read_correction(const std::filesystem::path& path);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_DOCUMENT_CORRECTION_FILE_H_
