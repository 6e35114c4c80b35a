// Places of a picture seen from near, for figures.
#ifndef CHALCEDONY_JOB_MAP_CLOSE_UPS_H_
#define CHALCEDONY_JOB_MAP_CLOSE_UPS_H_

#include <cstdint>
#include <vector>

#include "core/pixel/region.h"
#include "figure/sample_figure.h"
#include "io/picture/picture_file.h"
#include "job/run/context.h"

namespace chalcedony {

/// Each place with what lies around it: a square `around` pixels wide, or eight times as wide as
/// the place. Reads the picture once, from the top.
///
/// Errors    InputError when it is damaged
std::vector<CloseUp> close_ups(PictureFile& picture, const std::vector<PixelRect>& places,
                               std::uint32_t around = 0);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_MAP_CLOSE_UPS_H_
