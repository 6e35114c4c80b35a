// What features are made of, by name: `lab.a`, `mean5(lab.l)`.
#ifndef CHALCEDONY_CORE_FEATURE_FEATURE_NAMES_H_
#define CHALCEDONY_CORE_FEATURE_FEATURE_NAMES_H_

#include <string_view>
#include <vector>

#include "core/channel/channel.h"

namespace chalcedony {

/// A channel that features can be made of: one of a space, a stored one, or the mean or the
/// standard deviation of one in the square of pixels around each, as `mean5(lab.l)`,
/// `deviation9(file.0)`.
///
/// Errors    UsageError as channel_named(); for a side that is not odd or not from 3 to 255, or the
///           neighborhood of a hue
Channel feature_channel_named(std::string_view name, const ChannelNames& names = {});

/// A list of them; the name of a whole space stands for its channels, also as in `deviation5(lab)`.
///
/// Errors    UsageError as feature_channel_named(), or for a repeated or missing name
std::vector<Channel> feature_channels_named(std::string_view list, const ChannelNames& names = {});

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_FEATURE_FEATURE_NAMES_H_
