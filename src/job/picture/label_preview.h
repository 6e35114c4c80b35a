// Small copies of label pictures for figures.
#ifndef CHALCEDONY_JOB_PICTURE_LABEL_PREVIEW_H_
#define CHALCEDONY_JOB_PICTURE_LABEL_PREVIEW_H_

#include <cstdint>

#include "core/pixel/thumbnail.h"
#include "io/picture/label_picture.h"
#include "job/picture/preview.h"

namespace chalcedony {

/// The picture in the colors of its classes; pixels without one are black.
Thumbnail label_thumbnail(const LabelPicture& picture, std::uint32_t most_width = kPreviewWidth,
                          std::uint32_t most_height = kPreviewHeight);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PICTURE_LABEL_PREVIEW_H_
