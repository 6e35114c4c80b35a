// Colors in plain words: "dark red", "pale blue".
#ifndef CHALCEDONY_CORE_PALETTE_COLOR_NAME_H_
#define CHALCEDONY_CORE_PALETTE_COLOR_NAME_H_

#include <string>

#include "core/color/css_color.h"

namespace chalcedony {

/// A hue family with a word for lightness and one for chroma where they are out of the ordinary;
/// black, gray or white where there is next to no chroma. Sectors of oklch, whose borders are ours
/// (docs/palettes.md).
std::string color_name(const Color& color);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PALETTE_COLOR_NAME_H_
