// Which hues a picture has, to tell a cast from a picture of one color.
#ifndef CHALCEDONY_CORE_STATS_HUE_COUNTS_H_
#define CHALCEDONY_CORE_STATS_HUE_COUNTS_H_

#include <array>
#include <cstddef>
#include <cstdint>

#include "core/pixel/block.h"

namespace chalcedony {

/// Counts pixels of hsv saturation 20 % and more by their hue.
class HueCounts {
 public:
  static constexpr std::size_t kStep = 10, kWindow = 60;  // degrees

  /// `hue` in degrees, `saturation` in percent, of a Block's pixels; each counts for as many as its
  /// weight says.
  void add(const Block& block, const float* hue, const float* saturation);
  HueCounts& operator+=(const HueCounts& other);

  /// The fullest of the windows that begin at a whole step, the first of those that hold most.
  struct Window {
    std::size_t first = 0;  // degrees
    std::uint64_t pixels = 0;
  };
  Window fullest() const;

 private:
  static constexpr std::size_t kBins = 360 / kStep;

  std::array<std::uint64_t, kBins> bins_{};
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_STATS_HUE_COUNTS_H_
