// The writers of the picture formats; create_picture picks one.
#ifndef CHALCEDONY_IO_PICTURE_PICTURE_ENCODER_H_
#define CHALCEDONY_IO_PICTURE_PICTURE_ENCODER_H_

#include <cstddef>
#include <filesystem>
#include <memory>
#include <vector>

#include "io/picture/picture_spec.h"
#include "io/picture/picture_writer.h"

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

/// The profile a picture that is written should have for other programs: one of its grays when it
/// has one color channel. Empty for labels, planes, and spaces that are neither RGB nor gray.
std::vector<std::byte> icc_profile_for(const PictureSpec& spec);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_PICTURE_PICTURE_ENCODER_H_
