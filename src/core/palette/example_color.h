// What a value of a channel looks like.
#ifndef CHALCEDONY_CORE_PALETTE_EXAMPLE_COLOR_H_
#define CHALCEDONY_CORE_PALETTE_EXAMPLE_COLOR_H_

#include <optional>

#include "core/channel/channel.h"
#include "core/color/css_color.h"

namespace chalcedony {

/// A color with this value in the channel and ordinary values in the others; nothing for channels
/// that do not look like anything by themselves (stored ones, X, Z, x, y).
std::optional<Color> example_color(const Channel& channel, double value);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PALETTE_EXAMPLE_COLOR_H_
