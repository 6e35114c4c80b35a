// Masks on disk: 8-bit gray, 255 where a pixel is selected and 0 elsewhere.
#ifndef CHALCEDONY_IO_PICTURE_MASK_FILE_H_
#define CHALCEDONY_IO_PICTURE_MASK_FILE_H_

#include <filesystem>
#include <string>
#include <vector>

#include "core/pixel/mask.h"

namespace chalcedony {

/// Reads a mask: selected where it is 128 or more. A warning is added when it holds other values
/// than 0 and 255.
///
/// Errors    InputError for a lossy or colored picture, or one of another size than width x height
Mask read_mask(const std::filesystem::path& path, std::uint32_t width, std::uint32_t height,
               std::vector<std::string>& warnings);

/// The pixels of some classes of a class map, or of another picture of labels, as a mask.
///
/// Errors    InputError for a class that it does not have, a picture of another size, and what
///           open_labels() throws
Mask read_classes_as_mask(const std::filesystem::path& path,
                          const std::vector<std::string>& classes, std::uint32_t width,
                          std::uint32_t height);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_PICTURE_MASK_FILE_H_
