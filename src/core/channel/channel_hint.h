// What people may have meant by a name that no channel has.
#ifndef CHALCEDONY_CORE_CHANNEL_CHANNEL_HINT_H_
#define CHALCEDONY_CORE_CHANNEL_CHANNEL_HINT_H_

#include <string>
#include <string_view>
#include <vector>

#include "core/channel/channel.h"

namespace chalcedony {

/// Up to three channels: of a word of the trade (`hue`, `saturation`, `red`) or a letter alone
/// those that people mean by it, of a known space (`lab.x`) its channels, else the one whose name
/// is nearest. Empty when none is near.
std::vector<std::string> channels_like(std::string_view written, const ChannelNames& names = {});

/// "'hsv.h', 'oklch.h' or 'hsl.h'"
std::string one_of_names(const std::vector<std::string>& names);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CHANNEL_CHANNEL_HINT_H_
