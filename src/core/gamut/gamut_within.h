// Whether the colors of one space can leave another at all.
#ifndef CHALCEDONY_CORE_GAMUT_GAMUT_WITHIN_H_
#define CHALCEDONY_CORE_GAMUT_GAMUT_WITHIN_H_

#include "core/color/space.h"
#include "core/pixel/raster.h"

namespace chalcedony {

/// Whether every color of the RGB space `inner` with channels in their range has channels in their
/// range in `outer`, an RGB space too, within the tolerance of the gamut; as srgb in display-p3.
/// False for other spaces. Both curve each channel by itself, rising, and keep its ends, and
/// between the curves light is mixed: so what the corners of the one keep to, all of it keeps to.
bool gamut_within(const Space& inner, const Space& outer);

/// Whether a picture's colors may be out of the range of what they are to be stored as.
bool may_leave_gamut(const PictureInfo& picture, const PictureInfo& stored);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_GAMUT_GAMUT_WITHIN_H_
