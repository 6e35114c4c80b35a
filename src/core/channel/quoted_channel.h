// Values quoted in other units than the channel's own: on 0-1, or as the codes of a file.
#ifndef CHALCEDONY_CORE_CHANNEL_QUOTED_CHANNEL_H_
#define CHALCEDONY_CORE_CHANNEL_QUOTED_CHANNEL_H_

#include <cstdint>
#include <vector>

#include "core/channel/channel.h"
#include "core/pixel/raster.h"

namespace chalcedony {

enum class QuotedUnits : std::uint8_t {
  kOwn,   // those of ChannelInfo
  kUnit,  // 0-1 for what goes from 0 to 255 and for percent
  kCode,  // what goes from 0 to 255 as the file's numbers
};

/// The picture whose codes are quoted.
struct CodesOf {
  const PictureInfo* info = nullptr;
  double full = 255;  // the code of white; 1 for floats
};

/// A value of a channel as it is quoted; the value itself where the channel's own unit stays.
double quoted_value(double value, const Channel& channel, QuotedUnits units, const CodesOf& codes);

/// What is shown of a value in a space, null for none: the float arithmetic on the way to one that
/// is not RGB leaves a few millionths where there should be none, as in the chroma of a gray. What
/// lies nearer to 0 than 5e-5 is shown as 0 there.
double without_noise(const Space* space, double value);

/// The channel as it is quoted: the same name with other values, range and unit. Codes of a channel
/// that the picture stores as an integer are exactly those stored. Channels in degrees, in numbers
/// without a unit, as stored, and those that people define stay as they are.
Channel quoted_channel(const Channel& channel, QuotedUnits units, const CodesOf& codes);

/// Each of them as it is quoted.
std::vector<Channel> quoted_channels(const std::vector<Channel>& channels, QuotedUnits units,
                                     const CodesOf& codes);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CHANNEL_QUOTED_CHANNEL_H_
