// Selections that are nothing but limits of channels: `hsv.h in 340..20 and hsv.s >= 50`.
#ifndef CHALCEDONY_CORE_SELECT_CHANNEL_LIMITS_H_
#define CHALCEDONY_CORE_SELECT_CHANNEL_LIMITS_H_

#include <optional>
#include <vector>

#include "core/channel/channel.h"
#include "core/select/expression.h"

namespace chalcedony {

/// The values of a channel that are taken, both ends among them; an end that is missing is open. Of
/// a hue low may lie above high: then it runs through 360.
struct ChannelLimits {
  Channel channel;
  std::optional<double> low, high;
};

/// The limits of a selection that joins intervals of channels, and >= and <= of a channel and a
/// number, by `and`; one for each channel, in the order in which they are first named.
///
/// Errors    UsageError that shows the part that is none of these, or a channel that is limited
///           twice on one side
std::vector<ChannelLimits> limits_of(const Expression& expression);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_SELECT_CHANNEL_LIMITS_H_
