#include "job/color_descriptor.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <utility>

#include "core/color/channel_plan.h"
#include "core/error.h"
#include "core/stats/transport.h"
#include "job/counted_blocks.h"

namespace chalcedony {
namespace {

std::size_t bins_of(const SimilarOptions& options) {
  if (options.bins > 0) return options.bins;
  return options.by == DescribedBy::kCube ? 6 : options.by == DescribedBy::kJoint ? 24 : 64;
}

std::vector<Channel> channels_for(const SimilarOptions& options) {
  return options.by == DescribedBy::kCube ? channels_of(*options.space) : options.channels;
}

/// Bins over the usual range of a channel; values past its ends are in the first and last one.
class Axis {
 public:
  Axis(const Channel& channel, std::size_t bins) : bins_(bins) {
    const ChannelInfo& usual = channel.space->channels[channel.index];
    low_ = static_cast<float>(usual.low);
    per_unit_ = static_cast<float>(static_cast<double>(bins) / (usual.high - usual.low));
  }
  std::size_t bin(float value) const {
    const float at = (value - low_) * per_unit_;
    return at <= 0 ? 0 : std::min(bins_ - 1, static_cast<std::size_t>(at));
  }

 private:
  std::size_t bins_;
  float low_ = 0, per_unit_ = 1;
};

/// Counts one histogram over all axes together, or one for each.
void count(const Block& block, const ChannelEvaluator& values, const std::vector<Axis>& axes,
           bool together, std::size_t bins, std::vector<std::vector<std::uint64_t>>& counts) {
  for (std::size_t i = 0; i < block.size; ++i) {
    const std::uint32_t weight = block.weight(i);
    if (weight == 0) continue;
    std::size_t at = 0;
    bool whole = true;
    for (std::size_t a = 0; a < axes.size(); ++a) {
      const float value = values.channel(a)[i];
      if (!std::isfinite(value)) {
        whole = false;
        continue;
      }
      if (together) {
        at = at * bins + axes[a].bin(value);
      } else {
        counts[a][axes[a].bin(value)] += weight;
      }
    }
    if (together && whole) counts[0][at] += weight;
  }
}

/// Places of a bin on each axis, 0 to 1.
std::vector<double> place_of(std::size_t bin, std::size_t axes, std::size_t bins) {
  std::vector<double> place(axes);
  for (std::size_t a = axes; a-- > 0; bin /= bins)
    place[a] = (static_cast<double>(bin % bins) + 0.5) / static_cast<double>(bins);
  return place;
}

/// The cheapest transport between the bins that hold anything; hues are circles.
double transport_together(const Bins& a, const Bins& b, const std::vector<Channel>& channels,
                          std::size_t bins) {
  std::vector<double> from, to, costs;
  std::vector<std::vector<double>> from_places, to_places;
  for (std::size_t i = 0; i < a.size(); ++i) {
    if (a[i] > 0) {
      from.push_back(a[i]);
      from_places.push_back(place_of(i, channels.size(), bins));
    }
    if (b[i] > 0) {
      to.push_back(b[i]);
      to_places.push_back(place_of(i, channels.size(), bins));
    }
  }
  for (const auto& p : from_places)
    for (const auto& q : to_places) {
      double square = 0;
      for (std::size_t c = 0; c < channels.size(); ++c) {
        double step = std::abs(p[c] - q[c]);
        if (channels[c].is_hue()) step = std::min(step, 1 - step);
        square += step * step;
      }
      costs.push_back(std::sqrt(square));
    }
  return cheapest_transport(from, to, costs).cost;
}

}  // namespace

ColorDescriptor describe(CountedPicture& picture, const SimilarOptions& options,
                         const Context& context, Preview& preview) {
  const std::vector<Channel> channels = channels_for(options);
  const std::size_t bins = bins_of(options);
  const bool together = options.by != DescribedBy::kChannels;
  std::vector<Axis> axes;
  for (const Channel& channel : channels) axes.emplace_back(channel, bins);
  std::size_t size = bins;
  if (together)
    for (std::size_t a = 1; a < axes.size(); ++a) size *= bins;
  using Counts = std::vector<std::vector<std::uint64_t>>;
  const Counts empty(together ? 1 : axes.size(), std::vector<std::uint64_t>(size));
  CountedBlocks blocks(picture, options.shared, context, channels, preview);
  const ChannelPlan plan(blocks.info(), channels, options.shared.hue_floor);
  Tallies<Counts> tallies(empty);
  blocks.pass(
      [&](CountedBlocks::Reader reader) {
        return [&, reader = std::move(reader),
                evaluator = ChannelEvaluator(plan)](const Band& band) mutable {
          reader.for_each_block(band, [&](const Block& block) {
            evaluator.evaluate(block);
            count(block, evaluator, axes, together, bins, tallies.local());
          });
          return true;
        };
      },
      [](bool) {});
  const Counts& all = tallies.merged([](Counts& total, const Counts& one) {
    for (std::size_t h = 0; h < total.size(); ++h)
      for (std::size_t b = 0; b < total[h].size(); ++b) total[h][b] += one[h][b];
  });
  ColorDescriptor descriptor;
  for (const auto& counts : all) {
    descriptor.emplace_back(counts.begin(), counts.end());
    if (std::accumulate(counts.begin(), counts.end(), std::uint64_t{0}) == 0)
      throw InputError("no counted pixel has a value to compare",
                       "choose other channels or another region", picture.file.path.string());
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
          sum += transport_together(a[h], b[h], channels, bins);
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
