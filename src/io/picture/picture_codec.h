// The readers of the picture formats; open_picture picks one. Each fills all of PictureFile but
// its path, and leaves orientation and color to the caller.
#ifndef CHALCEDONY_IO_PICTURE_PICTURE_CODEC_H_
#define CHALCEDONY_IO_PICTURE_PICTURE_CODEC_H_

#include <cstddef>
#include <span>

#include "io/metadata/exif.h"
#include "io/picture/picture_file.h"

namespace chalcedony {

PictureFile open_png(const std::filesystem::path& path, const ReadOptions& options);
PictureFile open_jpeg(const std::filesystem::path& path, const ReadOptions& options);
PictureFile open_webp(const std::filesystem::path& path, const ReadOptions& options);
PictureFile open_tiff(const std::filesystem::path& path, const ReadOptions& options);

/// Takes over what Exif data says: the orientation, its colors, and what the file has not said in a
/// place of its own.
void take_exif(PictureFile& file, std::span<const std::byte> bytes);

/// Errors    InputError for an empty picture or one past the limit
void check_size(std::uint64_t width, std::uint64_t height, const ReadOptions& options);

/// Errors    InputError when a file of so many pictures does not have the one that is asked for
void check_page(std::size_t page, std::size_t pages);

/// `pixel_bits`: what a pixel takes before it is packed, at least.
///
/// Errors    InputError when a file of this length cannot hold so many pixels, before memory is
///           taken for them. For formats whose densest packing is known: at most 1365 bytes in one
///           (LZW of TIFF; deflate 1032)
void check_file_holds(std::uint64_t width, std::uint64_t height, std::uint64_t pixel_bits,
                      const std::filesystem::path& path);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_PICTURE_PICTURE_CODEC_H_
