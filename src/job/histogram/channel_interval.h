// The values that bins of a histogram span, as a selection names them.
#ifndef CHALCEDONY_JOB_HISTOGRAM_CHANNEL_INTERVAL_H_
#define CHALCEDONY_JOB_HISTOGRAM_CHANNEL_INTERVAL_H_

#include <string>

#include "core/channel/channel.h"
#include "core/stats/binning.h"
#include "core/stats/peaks.h"

namespace chalcedony {

/// Values of a channel, both ends included; a hue may run through 360.
struct ChannelInterval {
  Channel channel;
  double low = 0;
  double high = 0;
  bool whole = false;  // the whole axis, so that it selects nothing

  /// As `mask --where` takes it: "hsv.h in 340..20".
  std::string text() const;
};

/// What a range of bins spans. `codes` says that the values are 8-bit codes, so that the last code
/// of a range can be named.
ChannelInterval interval_of(const Channel& channel, const Binning& binning, const BinRange& range,
                            bool codes);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_HISTOGRAM_CHANNEL_INTERVAL_H_
