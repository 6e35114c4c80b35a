// Opens pictures: the format is told by their first bytes, color and orientation are settled.
#ifndef CHALCEDONY_IO_PICTURE_OPEN_PICTURE_H_
#define CHALCEDONY_IO_PICTURE_OPEN_PICTURE_H_

#include <filesystem>

#include "io/picture/picture_file.h"

namespace chalcedony {

/// Opens a PNG, JPEG, TIFF or WebP, told apart by their first bytes.
///
/// Errors    InputError with the file's name: not there, not a picture, damaged, empty, larger
///           than max_pixels, of a kind that cannot be read, or without a channel of `bands`
PictureFile open_picture(const std::filesystem::path& path, const ReadOptions& options = {});

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_PICTURE_OPEN_PICTURE_H_
