#include "job/histogram/channel_histogram.h"

#include <utility>

#include "core/channel/channel_plan.h"
#include "core/stats/histogram.h"
#include "job/picture/counted_blocks.h"
#include "job/picture/inputs.h"

namespace chalcedony {

ChannelCounts channel_counts(CountedPicture& picture, const Channel& channel, std::size_t bins,
                             const SharedOptions& options, const Context& context) {
  const PictureInfo& info = picture.file.info;
  const Binning binning = channel_binning(channel, has_codes(channel, info) ? 256 : bins, info);
  CountedBlocks blocks(picture, options, context, {channel});
  const ChannelPlan plan(blocks.info(), {channel}, options.hue_floor);
  const Histogram empty(binning, channel.is_hue());
  Histogram all = empty;
  blocks.pass(
      [&](CountedBlocks::Reader reader) {
        return [&, reader = std::move(reader),
                evaluator = ChannelEvaluator(plan)](const Band& band) mutable {
          Histogram own = empty;
          reader.for_each_block(band, [&](const Block& block) {
            evaluator.evaluate(block);
            own.add(block, evaluator.channel(0));
          });
          return own;
        };
      },
      [&](Histogram&& own) { all.merge(own); });
  picture.file.rows->rewind();
  ChannelCounts out{binning, std::vector<std::uint64_t>(binning.bins())};
  for (std::size_t b = 0; b < binning.bins(); ++b) out.counts[b] = all.count(b);
  out.counts.front() += all.below();
  out.counts.back() += all.above();
  return out;
}

}  // namespace chalcedony
