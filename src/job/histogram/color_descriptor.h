// The colors of a picture as histograms that can be held against those of another.
#ifndef CHALCEDONY_JOB_HISTOGRAM_COLOR_DESCRIPTOR_H_
#define CHALCEDONY_JOB_HISTOGRAM_COLOR_DESCRIPTOR_H_

#include <vector>

#include "core/stats/histogram_distance.h"
#include "job/histogram/similar.h"
#include "job/picture/inputs.h"
#include "job/picture/preview.h"

namespace chalcedony {

/// One histogram, or one for each channel. Pixels without hue are in none.
using ColorDescriptor = std::vector<Bins>;

/// Counts a picture as the options say, and gathers its preview.
///
/// Errors    InputError when no pixel counts, or none has a value
ColorDescriptor describe(CountedPicture& picture, const SimilarOptions& options,
                         const Context& context, Preview& preview);

/// The distance of two descriptors of one kind; of several channels the mean. Transport is in units
/// of the usual range of a channel, 0 to 1 across one axis.
double distance_between(const ColorDescriptor& a, const ColorDescriptor& b,
                        const SimilarOptions& options);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_HISTOGRAM_COLOR_DESCRIPTOR_H_
