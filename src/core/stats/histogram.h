// Channel and joint histograms: counts of values in equal bins.
#ifndef CHALCEDONY_CORE_STATS_HISTOGRAM_H_
#define CHALCEDONY_CORE_STATS_HISTOGRAM_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/pixel/block.h"
#include "core/stats/binning.h"

namespace chalcedony {

/// Counts of one channel. The bins and the four other counts sum to the counted pixels.
class Histogram {
 public:
  /// `hue` says that a value that is not a number means a pixel without hue.
  Histogram(Binning binning, bool hue);

  /// Counts the counted pixels of a Block, with their weights.
  void add(const Block& block, const float* values);
  /// Adds pixels to a bin, or to one of the places beside them.
  void add(std::int32_t bin, std::uint64_t pixels) { counts_[place_of(bin)] += pixels; }
  /// Adds the counts of the same bins.
  void merge(const Histogram& other);

  const Binning& binning() const { return binning_; }
  std::uint64_t count(std::size_t bin) const { return at(static_cast<std::int32_t>(bin)); }
  std::uint64_t below() const { return at(Binning::kBelow); }
  std::uint64_t above() const { return at(Binning::kAbove); }
  std::uint64_t no_hue() const { return hue_ ? at(Binning::kNotANumber) : 0; }
  std::uint64_t not_a_number() const { return hue_ ? 0 : at(Binning::kNotANumber); }
  std::uint64_t in_bins() const { return total() - below() - above() - at(Binning::kNotANumber); }
  std::uint64_t total() const;

 private:
  /// Counters of one place, taken in turn by the pixels: neighbors are alike, and a counter that
  /// was just written is slow to read again.
  static constexpr std::size_t kCounters = 2;

  /// Where the counters of a bin are, or of a place beside the bins: those come first.
  static constexpr std::size_t place_of(std::int32_t bin) {
    return kCounters * static_cast<std::size_t>(bin - Binning::kNotANumber);
  }
  std::uint64_t at(std::int32_t bin) const {
    return counts_[place_of(bin)] + counts_[place_of(bin) + 1];
  }

  Binning binning_;
  bool hue_;
  std::vector<std::uint64_t> counts_;
};

/// Counts of two channels together. A pixel with either value outside its bins is counted under
/// the first of these that holds: no hue, not a number, outside.
class JointHistogram {
 public:
  JointHistogram(Binning first, bool first_hue, Binning second, bool second_hue);

  void add(const Block& block, const float* first, const float* second);
  void merge(const JointHistogram& other);

  const Binning& first() const { return first_; }
  const Binning& second() const { return second_; }
  std::uint64_t count(std::size_t first_bin, std::size_t second_bin) const {
    return counts_[first_bin * second_.bins() + second_bin];
  }
  std::uint64_t no_hue() const { return no_hue_; }
  std::uint64_t not_a_number() const { return not_a_number_; }
  std::uint64_t outside() const { return outside_; }
  std::uint64_t total() const;

 private:
  /// Counts a pixel of which not both values have a bin.
  void count_beside(std::int32_t first_bin, std::int32_t second_bin, std::uint32_t weight);

  Binning first_, second_;
  bool first_hue_, second_hue_;
  std::vector<std::uint64_t> counts_;
  std::uint64_t no_hue_ = 0, not_a_number_ = 0, outside_ = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_STATS_HISTOGRAM_H_
