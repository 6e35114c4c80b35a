// What a TIFF says beside its samples.
#ifndef CHALCEDONY_IO_PICTURE_TIFF_METADATA_H_
#define CHALCEDONY_IO_PICTURE_TIFF_METADATA_H_

#include <tiffio.h>

#include <filesystem>

#include "io/picture/picture_file.h"

namespace chalcedony {

/// What the last channel of a pixel is, by ExtraSamples.
AlphaKind tiff_alpha(TIFF* tiff);

/// Of the two whites that Lab has here, the one nearer to WhitePoint; D50 where none is said.
const Space* tiff_lab_space(TIFF* tiff);

/// Takes over what the present directory says of its picture: what is carried over to pictures made
/// of it, its Exif data, its color profile, and notes of this program.
void take_tiff_metadata(const std::filesystem::path& path, TIFF* tiff, PictureFile& file);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_PICTURE_TIFF_METADATA_H_
