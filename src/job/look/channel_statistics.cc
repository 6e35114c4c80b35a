#include "job/look/channel_statistics.h"

#include <string>
#include <utility>

#include "job/picture/tallies.h"

namespace chalcedony {
namespace {

const std::vector<double> kPercentiles{1, 5, 25, 50, 75, 95, 99};

}  // namespace

ChannelStatistics::Sums& ChannelStatistics::Sums::operator+=(const Sums& later) {
  for (std::size_t i = 0; i < moments.size(); ++i) {
    moments[i] += later.moments[i];
    hues[i] += later.hues[i];
  }
  return *this;
}

ChannelStatistics::ChannelStatistics(const PictureInfo& info, const std::vector<Channel>& channels)
    : info_(info), channels_(channels), sums_(empty_sums()), counts_(empty_counts()) {}

ChannelStatistics::Sums ChannelStatistics::empty_sums() const {
  return {std::vector<Moments>(channels_.size()), std::vector<HueMoments>(channels_.size())};
}

void ChannelStatistics::merge_counts(Counts& total, const Counts& one) {
  for (std::size_t i = 0; i < total.size(); ++i) total[i].merge_coarse(one[i]);
}

void ChannelStatistics::merge_again(Counts& total, const Counts& one) {
  for (std::size_t i = 0; i < total.size(); ++i) total[i].merge_fine(one[i]);
}

void ChannelStatistics::add(std::size_t i, const Block& block, const float* values, Sums& sums,
                            Counts& counts) const {
  if (channels_[i].is_hue()) return sums.hues[i].add(block, values);
  const auto [low, high] = usual_range(channels_[i], info_);
  sums.moments[i].add(block, values, low, high);
  counts[i].add_coarse(block, values);
}

bool ChannelStatistics::finish(Sums sums, Counts counts) {
  sums_ = std::move(sums);
  counts_ = std::move(counts);
  bool again = false;
  for (Ranks& ranks : counts_) again |= ranks.refine(kPercentiles);
  return again;
}

void ChannelStatistics::add_again(std::size_t i, const Block& block, const float* values,
                                  Counts& counts) const {
  if (!channels_[i].is_hue()) counts[i].add_fine(block, values);
}

Json ChannelStatistics::report(std::size_t i, std::uint64_t counted) const {
  const Channel& channel = channels_[i];
  Json json{{"channel", channel.name()}, {"unit", channel.unit_name()}};
  if (channel.is_hue()) {
    const HueMoments& hue = sums_.hues[i];
    json["no_hue"] = counted - hue.count;
    if (hue.count > 0) {
      json["circular_mean"] = hue.mean();
      json["circular_spread"] = hue.spread();
    }
    return json;
  }
  const Moments& m = sums_.moments[i];
  if (channel.derived && m.count < counted) json["no_value"] = counted - m.count;
  if (m.count == 0) return json;
  json["minimum"] = m.smallest;
  json["maximum"] = m.largest;
  json["mean"] = m.mean();
  json["standard_deviation"] = m.standard_deviation();
  for (const double p : kPercentiles)
    json[p == 50 ? "median" : "percentile_" + std::to_string(static_cast<int>(p))] =
        counts_[i].percentile(p).value_or(0);
  json["at_low_percent"] = percent(m.at_low, counted);
  json["at_high_percent"] = percent(m.at_high, counted);
  return json;
}

void pass_again(ChannelStatistics& statistics, CountedBlocks& blocks, double hue_floor) {
  const ChannelPlan plan(blocks.info(), statistics.channels(), hue_floor);
  Tallies<ChannelStatistics::Counts> tallies(statistics.counts());
  blocks.pass(
      [&](CountedBlocks::Reader reader) {
        return [&, reader = std::move(reader),
                channels = ChannelEvaluator(plan)](const Band& band) mutable {
          ChannelStatistics::Counts& counts = tallies.local();
          reader.for_each_block(band, [&](const Block& block) {
            channels.evaluate(block);
            for (std::size_t i = 0; i < counts.size(); ++i)
              statistics.add_again(i, block, channels.channel(i), counts);
          });
          return true;
        };
      },
      [](bool) {});
  statistics.finish_again(std::move(tallies.merged(ChannelStatistics::merge_again)));
}

std::uint64_t add_counted_colors(ChannelStatistics& statistics, CountedBlocks& colors,
                                 double hue_floor) {
  const ChannelPlan plan(colors.info(), statistics.channels(), hue_floor);
  Tallies<ChannelStatistics::Counts> tallies(statistics.empty_counts());
  Tallies<std::uint64_t> clipped(0);
  ChannelStatistics::Sums sums = statistics.empty_sums();
  colors.pass(
      [&](CountedBlocks::Reader reader) {
        return [&, reader = std::move(reader),
                channels = ChannelEvaluator(plan)](const Band& band) mutable {
          ChannelStatistics::Sums here = statistics.empty_sums();
          ChannelStatistics::Counts& counts = tallies.local();
          reader.for_each_block(band, [&](const Block& block) {
            channels.evaluate(block);
            for (std::size_t i = 0; i < counts.size(); ++i)
              statistics.add(i, block, channels.channel(i), here, counts);
          });
          clipped.local() += channels.take_clipped();
          return here;
        };
      },
      [&](const ChannelStatistics::Sums& band) { sums += band; });
  if (statistics.finish(std::move(sums),
                        std::move(tallies.merged(ChannelStatistics::merge_counts))))
    pass_again(statistics, colors, hue_floor);
  return clipped.merged([](std::uint64_t& total, std::uint64_t one) { total += one; });
}

}  // namespace chalcedony
