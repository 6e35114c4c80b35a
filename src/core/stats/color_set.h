// Which of the 16.7 million 8-bit colors of a space occur.
#ifndef CHALCEDONY_CORE_STATS_COLOR_SET_H_
#define CHALCEDONY_CORE_STATS_COLOR_SET_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/pixel/block.h"
#include "core/pixel/raster.h"

namespace chalcedony {

/// Cost      2 MB, a bit for each color
class ColorSet {
 public:
  /// Adds the colors of the pixels that count; `scales`: from the codes of the three channels to
  /// their values.
  void add(const Block& block, const std::array<SampleScale, 3>& scales);
  /// In any order.
  void merge(const ColorSet& other);
  std::uint64_t count() const;

 private:
  std::vector<std::uint64_t> seen_;     // a bit for each color_number()
  std::vector<std::byte> codes_;        // of a Block
  std::vector<std::uint32_t> numbers_;  // of its colors
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_STATS_COLOR_SET_H_
