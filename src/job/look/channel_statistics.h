// What inspect says of each channel: range, moments and percentiles, or the mean direction of a
// hue.
#ifndef CHALCEDONY_JOB_LOOK_CHANNEL_STATISTICS_H_
#define CHALCEDONY_JOB_LOOK_CHANNEL_STATISTICS_H_

#include <cstdint>
#include <vector>

#include "core/channel/channel_plan.h"
#include "core/stats/moments.h"
#include "core/stats/ranks.h"
#include "job/picture/counted_blocks.h"
#include "job/run/summary.h"

namespace chalcedony {

/// Statistics of channels. Every value passes by once, and where percentiles need it a second time;
/// what passes may be pixels, colors with the number of their pixels, or codes likewise.
class ChannelStatistics {
 public:
  ChannelStatistics(const PictureInfo& info, const std::vector<Channel>& channels);

  /// Sums in double, to be taken in order, so that they are the same for any number of threads.
  struct Sums {
    std::vector<Moments> moments;
    std::vector<HueMoments> hues;

    Sums& operator+=(const Sums& later);
  };
  /// Counts, in any order.
  using Counts = std::vector<Ranks>;

  Sums empty_sums() const;
  Counts empty_counts() const { return Counts(channels_.size()); }
  static void merge_counts(Counts& total, const Counts& one);

  /// The values of channel i to what a thread and a band gather.
  void add(std::size_t i, const Block& block, const float* values, Sums& sums,
           Counts& counts) const;
  /// Ends the first pass; true when a second is needed.
  bool finish(Sums sums, Counts counts);

  /// The counts a thread begins a second pass with.
  const Counts& counts() const { return counts_; }
  void add_again(std::size_t i, const Block& block, const float* values, Counts& counts) const;
  static void merge_again(Counts& total, const Counts& one);
  void finish_again(Counts counts) { counts_ = std::move(counts); }

  const std::vector<Channel>& channels() const { return channels_; }
  /// Of a channel that is no hue.
  const Moments& moments(std::size_t i) const { return sums_.moments[i]; }
  /// Of `counted` pixels, as a summary has it.
  Json report(std::size_t i, std::uint64_t counted) const;

 private:
  PictureInfo info_;
  std::vector<Channel> channels_;
  Sums sums_;
  Counts counts_;
};

/// The second pass, over the Blocks of the first.
void pass_again(ChannelStatistics& statistics, CountedBlocks& blocks, double hue_floor);

/// The statistics of a picture whose colors were counted. Returns how many counted pixels were
/// clipped on the way to a channel.
std::uint64_t add_counted_colors(ChannelStatistics& statistics, CountedBlocks& colors,
                                 double hue_floor);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_LOOK_CHANNEL_STATISTICS_H_
