// The channels of an image in regions: their means, medians and spreads, and a color for each.
#ifndef CHALCEDONY_CORE_REGION_REGION_VALUES_H_
#define CHALCEDONY_CORE_REGION_REGION_VALUES_H_

#include <cstddef>
#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "core/channel/channel.h"

namespace chalcedony {

/// Of one channel in one region; empty where no pixel has a number. A hue has a mean only, that of
/// its directions.
struct ChannelFigures {
  std::optional<double> mean, median, spread;  // spread: standard deviation (n)
};

struct RegionColors {
  std::vector<ChannelFigures> channels;
  std::string mean_color;  // CSS, mean in oklab; empty without pixels
};

/// Gathers the values of regions. Add rows in picture order and the result is the same for any
/// number of threads. Medians come from values rounded to 1/65535 of the usual range of their
/// channel.
///
/// Cost      two bytes for each pixel in a region and channel
class RegionValues {
 public:
  RegionValues(const std::vector<Channel>& channels, std::size_t regions);

  /// The channels whose values are added: those of the constructor, then those of oklab.
  const std::vector<Channel>& channels() const { return channels_; }

  /// Adds pixels `begin` to `end` - 1 to a region; `values` holds a plane for each of channels().
  /// What is not a finite number is left out.
  void add(std::size_t region, const std::vector<std::vector<float>>& values, std::size_t begin,
           std::size_t end);

  /// Of each region; may be called once.
  std::vector<RegionColors> take_colors();

 private:
  /// Channel values as 16-bit codes over the channel's usual range.
  struct CodeScale {
    double low = 0, step = 1;

    explicit CodeScale(const Channel& channel);
    std::uint16_t code(double value) const;
    double value(double code) const { return low + step * code; }
  };
  /// What adds up for one channel in one region.
  struct Sums {
    double count = 0, sum = 0, squares = 0, cosines = 0, sines = 0;
    std::vector<std::uint16_t> codes;
  };

  ChannelFigures figures_of(Sums& sums, std::size_t channel) const;

  std::vector<Channel> channels_;
  std::size_t own_;  // those of the constructor
  std::vector<CodeScale> scales_;
  std::vector<std::vector<Sums>> sums_;  // of each region, of each channel
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_REGION_REGION_VALUES_H_
