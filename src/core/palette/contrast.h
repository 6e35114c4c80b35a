// How well text of one color can be read on another.
#ifndef CHALCEDONY_CORE_PALETTE_CONTRAST_H_
#define CHALCEDONY_CORE_PALETTE_CONTRAST_H_

#include "core/color/css_color.h"

namespace chalcedony {

/// The relative luminance of a color as 8-bit sRGB shows it, 0 for black to 1 for white.
///
/// Source    WCAG 2.2, "relative luminance"; the linear piece ends at 0.04045, as the standard of
///           sRGB says
double relative_luminance(const Color& color);

/// The contrast ratio of two colors, 1 for none to 21 for black and white; whichever comes first.
///
/// Source    WCAG 2.2, "contrast ratio"
double contrast_ratio(const Color& a, const Color& b);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PALETTE_CONTRAST_H_
