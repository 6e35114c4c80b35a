// Pictures that go together pixel by pixel, and so must be of one size.
#ifndef CHALCEDONY_JOB_PICTURE_SAME_SIZE_H_
#define CHALCEDONY_JOB_PICTURE_SAME_SIZE_H_

#include <filesystem>
#include <string>

#include "core/pixel/raster.h"

namespace chalcedony {

/// Errors    InputError, at `file`, when it has not the size of `other`, which is called `what`, as
///           in "is 60x40, the picture 30x20"; `remedy` says what to do
void require_same_size(const std::filesystem::path& file, const RasterShape& shape,
                       const std::string& what, const RasterShape& other,
                       const std::string& remedy);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PICTURE_SAME_SIZE_H_
