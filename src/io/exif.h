// The few fields of Exif metadata that change how a picture is read.
#ifndef CHALCEDONY_IO_EXIF_H_
#define CHALCEDONY_IO_EXIF_H_

#include <cstddef>
#include <cstdint>
#include <span>

namespace chalcedony {

struct Exif {
  int orientation = 1;  // 1 to 8
  int color_space = 0;  // 1 sRGB, 65535 uncalibrated, 0 not said
};

/// Reads Exif data that begins with its TIFF header (`II` or `MM`). Damaged data gives what could
/// be read; it never fails a picture.
///
/// Source    Exif 2.32 (CIPA DC-008), 4.6
Exif parse_exif(std::span<const std::byte> bytes);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_EXIF_H_
