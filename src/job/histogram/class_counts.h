// The values of channels of a picture, counted class by class.
#ifndef CHALCEDONY_JOB_HISTOGRAM_CLASS_COUNTS_H_
#define CHALCEDONY_JOB_HISTOGRAM_CLASS_COUNTS_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/channel/channel.h"
#include "core/pixel/block_reader.h"
#include "core/stats/class_histogram.h"
#include "job/histogram/class_source.h"
#include "job/picture/inputs.h"

namespace chalcedony {

struct CountedChannel {
  Channel channel;
  bool codes = false;  // its values are 8-bit codes
  ClassHistogram histogram;
};

struct ClassCounts {
  std::vector<CountedChannel> channels;  // one at least; all of the same pixels
  Excluded excluded;

  std::uint64_t pixels(std::size_t c) const { return channels.front().histogram.total(c); }
  std::size_t classes() const { return channels.front().histogram.classes(); }
  /// How many classes have pixels.
  std::size_t classes_with_pixels() const;
  /// Adds the counts of the same channels, bins and classes.
  void merge(const ClassCounts& other);
};

/// One pass over the picture and its classes together, in `bins` bins of each channel.
///
/// Errors    what their rows throw
ClassCounts count_by_class(CountedPicture& picture, ClassSource& source,
                           const std::vector<Channel>& channels, std::size_t bins,
                           const SharedOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_HISTOGRAM_CLASS_COUNTS_H_
