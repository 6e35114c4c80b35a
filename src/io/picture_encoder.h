// The writers of the picture formats; create_picture picks one.
#ifndef CHALCEDONY_IO_PICTURE_ENCODER_H_
#define CHALCEDONY_IO_PICTURE_ENCODER_H_

#include <cstddef>
#include <vector>

#include "io/picture_writer.h"

namespace chalcedony {

std::unique_ptr<PictureWriter> create_png(const std::filesystem::path& path,
                                          const PictureSpec& spec);
std::unique_ptr<PictureWriter> create_tiff(const std::filesystem::path& path,
                                           const PictureSpec& spec);
std::unique_ptr<PictureWriter> create_jpeg(const std::filesystem::path& path,
                                           const PictureSpec& spec);
std::unique_ptr<PictureWriter> create_webp(const std::filesystem::path& path,
                                           const PictureSpec& spec);

/// Exif data of a picture, for formats without a place of their own for what it says; empty when
/// there is nothing to say.
std::vector<std::byte> exif_data_of(const PictureSpec& spec);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_PICTURE_ENCODER_H_
