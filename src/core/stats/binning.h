// Equal bins over a range: half-open, the last one closed.
#ifndef CHALCEDONY_CORE_STATS_BINNING_H_
#define CHALCEDONY_CORE_STATS_BINNING_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/channel/channel.h"
#include "core/pixel/raster.h"

namespace chalcedony {

/// Bin i holds edge(i) <= value < edge(i + 1); the last one holds its upper edge too.
class Binning {
 public:
  /// Places a value can go beside the bins.
  enum : std::int32_t { kBelow = -1, kAbove = -2, kNotANumber = -3 };

  Binning(double low, double high, std::size_t bins);

  std::size_t bins() const { return bins_; }
  double low() const { return low_; }
  double high() const { return high_; }
  double edge(std::size_t i) const {
    return low_ + (high_ - low_) * static_cast<double>(i) / static_cast<double>(bins_);
  }
  /// Whether each bin holds one 8-bit code.
  bool holds_codes() const { return low_ == 0 && high_ == 256 && bins_ == 256; }
  double center(std::size_t i) const { return (edge(i) + edge(i + 1)) / 2; }

  friend bool operator==(const Binning& a, const Binning& b) {
    return a.low_ == b.low_ && a.high_ == b.high_ && a.bins_ == b.bins_;
  }

  /// The bin of a value, or kBelow, kAbove, kNotANumber.
  std::int32_t bin_of(float value) const {
    if (!(value >= first_)) return value < first_ ? kBelow : kNotANumber;
    if (value > last_) return kAbove;
    auto bin = static_cast<std::int32_t>((value - first_) * per_unit_);
    bin = bin < top_ ? bin : top_;
    // The product may be off by a rounding; the edges decide.
    if (value < float_edges_[static_cast<std::size_t>(bin)]) return bin - 1;
    return value < float_edges_[static_cast<std::size_t>(bin) + 1] ? bin : bin + 1;
  }

  /// The same of n values.
  void find_bins(const float* values, std::size_t n, std::int32_t* bins) const;

 private:
  double low_, high_;
  std::size_t bins_;
  float first_, last_, per_unit_;
  std::int32_t top_;
  std::vector<float> float_edges_;  // the smallest float not below each edge; none above the last
};

/// The bins of a channel when the user gives only their number: its usual range, and 0 to 256 for
/// channels counted 0-255, so that 256 bins hold one 8-bit code each. Stored channels span 0 to 1
/// in float pictures, else one more than their largest code.
Binning channel_binning(const Channel& channel, std::size_t bins, const PictureInfo& info);

/// Whether the values of a channel are whole numbers: 8-bit samples as they are stored.
bool has_codes(const Channel& channel, const PictureInfo& info);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_STATS_BINNING_H_
