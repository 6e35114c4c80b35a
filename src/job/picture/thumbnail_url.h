// Small pictures inside of pages.
#ifndef CHALCEDONY_JOB_PICTURE_THUMBNAIL_URL_H_
#define CHALCEDONY_JOB_PICTURE_THUMBNAIL_URL_H_

#include <filesystem>
#include <string>

#include "core/pixel/thumbnail.h"

namespace chalcedony {

/// The bytes of an image file as a data URL; `type` as in `image/png`.
///
/// Errors    InputError when it cannot be read
std::string data_url(const std::string& type, const std::filesystem::path& file);

/// What may become of the colors of a small picture.
enum class ThumbnailColors {
  kExact,   // PNG
  kNearly,  // JPEG, which is smaller
};

/// Errors    OutputError when there is no room for temporary files
std::string thumbnail_url(const Thumbnail& thumbnail, ThumbnailColors colors);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PICTURE_THUMBNAIL_URL_H_
