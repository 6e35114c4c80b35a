#include "job/histogram/color_descriptor.h"

#include <utility>

#include "core/channel/channel_plan.h"
#include "core/error.h"
#include "core/stats/cube.h"
#include "job/picture/counted_blocks.h"

namespace chalcedony {
namespace {

std::size_t bins_of(const SimilarOptions& options) {
  if (options.bins > 0) return options.bins;
  return options.by == DescribedBy::kCube ? 6 : options.by == DescribedBy::kJoint ? 24 : 64;
}

std::vector<Channel> channels_for(const SimilarOptions& options) {
  return options.by == DescribedBy::kCube ? channels_of(*options.space) : options.channels;
}

}  // namespace

ColorDescriptor describe(CountedPicture& picture, const SimilarOptions& options,
                         const Context& context, Preview& preview) {
  const std::vector<Channel> channels = channels_for(options);
  std::vector<CubeHistogram> empty;
  if (options.by == DescribedBy::kChannels) {
    for (const Channel& channel : channels)
      empty.emplace_back(std::vector<Channel>{channel}, bins_of(options));
  } else {
    empty.emplace_back(channels, bins_of(options));
  }
  CountedBlocks blocks(picture, options.shared, context, channels, &preview);
  const ChannelPlan plan(blocks.info(), channels, options.shared.hue_floor);
  Tallies<std::vector<CubeHistogram>> tallies(empty);
  blocks.pass(
      [&](CountedBlocks::Reader reader) {
        return [&, reader = std::move(reader),
                evaluator = ChannelEvaluator(plan)](const Band& band) mutable {
          reader.for_each_block(band, [&](const Block& block) {
            evaluator.evaluate(block);
            std::size_t next = 0;
            for (CubeHistogram& cube : tallies.local()) {
              std::vector<const float*> values;
              while (values.size() < cube.channels().size())
                values.push_back(evaluator.channel(next++));
              cube.add(block, values);
            }
          });
          return true;
        };
      },
      [](bool) {});
  const auto& cubes =
      tallies.merged([](std::vector<CubeHistogram>& total, const std::vector<CubeHistogram>& one) {
        for (std::size_t h = 0; h < total.size(); ++h) total[h].merge(one[h]);
      });
  ColorDescriptor descriptor;
  for (const CubeHistogram& cube : cubes) {
    if (cube.total() == cube.no_hue())
      throw InputError("no counted pixel has a value to compare",
                       "choose other channels or another region", picture.file.path.string());
    descriptor.push_back(cube.bins());
  }
  return descriptor;
}

double distance_between(const ColorDescriptor& a, const ColorDescriptor& b,
                        const SimilarOptions& options) {
  const std::vector<Channel> channels = channels_for(options);
  const std::size_t bins = bins_of(options);
  double sum = 0;
  for (std::size_t h = 0; h < a.size(); ++h) {
    switch (options.distance) {
      case HistogramDistance::kOverlap:
        sum += overlap_distance(a[h], b[h]);
        break;
      case HistogramDistance::kJensenShannon:
        sum += jensen_shannon_distance(a[h], b[h]);
        break;
      case HistogramDistance::kHellinger:
        sum += hellinger_distance(a[h], b[h]);
        break;
      case HistogramDistance::kTransport:
        if (options.by != DescribedBy::kChannels) {
          std::vector<bool> circular;
          for (const Channel& channel : channels) circular.push_back(channel.is_hue());
          sum += transport_in_cube(a[h], b[h], bins, circular);
        } else {
          sum += (channels[h].is_hue() ? transport_on_circle(a[h], b[h])
                                       : transport_on_line(a[h], b[h])) /
                 static_cast<double>(bins);
        }
        break;
    }
  }
  return sum / static_cast<double>(a.size());
}

}  // namespace chalcedony
