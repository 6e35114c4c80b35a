// Small copies of label pictures for figures.
#ifndef CHALCEDONY_JOB_PICTURE_LABEL_PREVIEW_H_
#define CHALCEDONY_JOB_PICTURE_LABEL_PREVIEW_H_

#include "core/pixel/thumbnail.h"
#include "io/picture/label_picture.h"

namespace chalcedony {

/// The picture in the colors of its classes; pixels without one are black.
Thumbnail label_thumbnail(const LabelPicture& picture);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PICTURE_LABEL_PREVIEW_H_
