// Files that are pictures, but none this program reads.
#ifndef CHALCEDONY_IO_PICTURE_FOREIGN_FORMAT_H_
#define CHALCEDONY_IO_PICTURE_FOREIGN_FORMAT_H_

#include <optional>
#include <string_view>

namespace chalcedony {

/// What a file is, and how a picture for this program is made of it.
struct ForeignFormat {
  std::string_view what;    // "a HEIC picture"
  std::string_view advice;  // "save it as ..."
};

/// By the first 12 bytes of a file; nothing for a format that is read, and for what is not known.
std::optional<ForeignFormat> foreign_format(std::string_view first);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_PICTURE_FOREIGN_FORMAT_H_
