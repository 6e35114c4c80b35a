// Statistics of 8-bit channels from how often each code is stored, without a look at the pixels.
#ifndef CHALCEDONY_JOB_PICTURE_CODE_PIXELS_H_
#define CHALCEDONY_JOB_PICTURE_CODE_PIXELS_H_

#include <cstddef>
#include <vector>

#include "core/channel/channel_plan.h"
#include "core/pixel/block_reader.h"
#include "core/stats/code_counts.h"
#include "job/picture/inputs.h"

namespace chalcedony {

/// Whether each channel is decided by one stored sample, and all pixels count, so that counting the
/// codes of samples tells all that is asked of the channels one by one.
bool codes_tell(const CountedPicture& picture, const std::vector<Channel>& channels);

/// A pixel for each code, all of its samples alike.
class CodePixels {
 public:
  /// `channels` as codes_tell() takes them.
  CodePixels(const PictureInfo& info, const std::vector<Channel>& channels, double hue_floor);

  /// Calls `use(i, block, values)` for each channel, with the values of the pixels and as weights
  /// how many pixels of the picture have that code where the channel is decided.
  template <class Use>
  void for_each_channel(const CodeCounts& counts, const Use& use) {
    const std::vector<Channel>& channels = plan_.channels();
    for (std::size_t i = 0; i < channels.size(); ++i) {
      const CodeCounts::Counts pixels = counts.of(*deciding_sample(channels[i], plan_.info()));
      block_.weights = pixels.data();
      use(i, block_, evaluator_.channel(i));
    }
  }

 private:
  ChannelPlan plan_;
  std::vector<std::byte> stored_;
  BlockReader reader_;
  ChannelEvaluator evaluator_;
  Block block_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PICTURE_CODE_PIXELS_H_
