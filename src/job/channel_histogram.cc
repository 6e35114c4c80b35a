#include "job/channel_histogram.h"

#include <utility>

#include "core/color/channel_plan.h"
#include "core/stats/histogram.h"
#include "job/counted_blocks.h"
#include "job/inputs.h"

namespace chalcedony {
namespace {

Binning binning_for(const Channel& channel, const PictureInfo& info, std::size_t bins) {
  const bool eight_bits = info.shape.sample == SampleType::kU8;
  if (channel.is_stored()) {
    const double full = full_scale_of(info.shape.sample);
    return {0, full + 1, eight_bits ? 256 : bins};
  }
  if (eight_bits && channel.space->is_rgb && channel.space == info.space) return {0, 256, 256};
  const ChannelInfo& usual = channel.space->channels[channel.index];
  return {usual.low, usual.high, bins};
}

}  // namespace

ChannelCounts channel_counts(const std::filesystem::path& input, const Channel& channel,
                             std::size_t bins, const SharedOptions& options,
                             const Context& context) {
  Context quiet = context;
  quiet.warn = [](const std::string&) {};
  CountedPicture picture = open_counted(input, options, quiet);
  Preview none(picture.file.info, false);
  const Binning binning = binning_for(channel, picture.file.info, bins);
  CountedBlocks blocks(picture, options, quiet, {channel}, none);
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
  ChannelCounts out{binning, std::vector<std::uint64_t>(binning.bins())};
  for (std::size_t b = 0; b < binning.bins(); ++b) out.counts[b] = all.count(b);
  out.counts.front() += all.below();
  out.counts.back() += all.above();
  return out;
}

}  // namespace chalcedony
