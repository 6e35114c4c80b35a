// A histogram of one, two or three channels together, for comparing pictures.
#ifndef CHALCEDONY_CORE_STATS_CUBE_H_
#define CHALCEDONY_CORE_STATS_CUBE_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/channel/channel.h"
#include "core/pixel/block.h"
#include "core/stats/binning.h"

namespace chalcedony {

/// Counts in n equal bins over the usual range of each channel. A value past an end is counted in
/// the bin at that end, so that cubes of different pictures have the same bins and hold all their
/// pixels but those without hue.
class CubeHistogram {
 public:
  /// Range     1 <= n <= 64 for three channels; no stored ones
  CubeHistogram(const std::vector<Channel>& channels, std::size_t n);

  /// `values`: an array for each channel, in its units.
  void add(const Block& block, const std::vector<const float*>& values);
  void merge(const CubeHistogram& other);

  const std::vector<Channel>& channels() const { return channels_; }
  std::size_t side() const { return n_; }
  /// The last channel runs fastest.
  std::vector<std::uint64_t> counts() const;
  /// The same as the functions of histogram_distance.h take them.
  std::vector<double> bins() const;
  std::uint64_t no_hue() const { return no_hue_; }
  std::uint64_t total() const;

 private:
  /// Counters of one bin, taken in turn by the pixels, as in Histogram.
  static constexpr std::size_t kCounters = 2;

  std::vector<Channel> channels_;
  std::size_t n_;
  std::vector<Binning> axes_;
  std::vector<std::uint64_t> counts_;
  std::uint64_t no_hue_ = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_STATS_CUBE_H_
