// The histogram of one channel of a picture, for work that needs it on the way.
#ifndef CHALCEDONY_JOB_HISTOGRAM_CHANNEL_HISTOGRAM_H_
#define CHALCEDONY_JOB_HISTOGRAM_CHANNEL_HISTOGRAM_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/channel/channel.h"
#include "core/stats/binning.h"
#include "job/picture/inputs.h"
#include "job/run/context.h"

namespace chalcedony {

struct ChannelCounts {
  Binning binning;
  std::vector<std::uint64_t> counts;  // values past the ends are in the first and last bin
};

/// Counts the counted pixels: 8-bit codes one by one, other values in `bins` even bins over the
/// channel's usual range. Pixels without a value are left out. The picture's rows are ready for the
/// next pass then.
///
/// Errors    InputError
ChannelCounts channel_counts(CountedPicture& picture, const Channel& channel, std::size_t bins,
                             const SharedOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_HISTOGRAM_CHANNEL_HISTOGRAM_H_
