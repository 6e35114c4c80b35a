// What inspect finds odd about a picture, a sentence each.
#ifndef CHALCEDONY_JOB_LOOK_ODDITIES_H_
#define CHALCEDONY_JOB_LOOK_ODDITIES_H_

#include <vector>

#include "core/stats/edge_lines.h"
#include "core/stats/picture_traits.h"
#include "io/picture/picture_file.h"
#include "job/look/channel_statistics.h"
#include "job/run/context.h"
#include "job/run/summary.h"

namespace chalcedony {

/// What oddities are found from.
struct OddityFacts {
  const PictureFile& picture;
  const PictureTraits& traits;
  const LineSums& lines;
  const ChannelStatistics& statistics;   // of channels as they are quoted
  const std::vector<Channel>& channels;  // the same in their own units
  double full_scale = 0;                 // that was given; 0: none was
};

/// A list of sentences: stored as color but gray, with alpha but opaque, with bits that are not
/// used; channels that are the same everywhere, or cut off at an end of their range; outer lines
/// unlike the rest.
Json oddities(const OddityFacts& facts);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_LOOK_ODDITIES_H_
