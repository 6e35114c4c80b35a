// The color of a palette that is nearest to a pixel's.
#ifndef CHALCEDONY_CORE_PALETTE_NEAREST_COLOR_H_
#define CHALCEDONY_CORE_PALETTE_NEAREST_COLOR_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/color/color_difference.h"
#include "core/color/css_color.h"
#include "core/planes.h"

namespace chalcedony {

/// One for each thread.
class NearestColor {
 public:
  /// At least one color, at most 255.
  NearestColor(const std::vector<Color>& palette, DifferenceFormula formula);

  /// The number of the nearest color of each of n pixels, 1 for the first; of equally near ones the
  /// first. `values` are planes of space_of(), at most kBlockPixels, padded.
  void find(const ConstPlanes& values, std::size_t n, std::uint8_t* numbers);

 private:
  DifferenceFormula formula_;
  std::vector<std::array<double, 3>> colors_;
  PlaneBuffer buffer_;
};

/// The nearest color of every sRGB color, from a table of 64 x 64 x 64 cells: what is found is the
/// nearest to the middle of the cell.
class NearestColorTable {
 public:
  NearestColorTable(const std::vector<Color>& palette, DifferenceFormula formula);

  /// The cell of a channel of sRGB in 0-255; what lies outside is clipped.
  static std::uint8_t cell(float v) {
    return static_cast<std::uint8_t>((v < 0 ? 0.0f : v > 255 ? 255.0f : v) / (256 / kCells));
  }
  /// The number of the color for the cells of r, g and b, 1 for the first.
  std::uint8_t find(std::uint8_t r, std::uint8_t g, std::uint8_t b) const {
    return numbers_[(r * kCells + g) * kCells + b];
  }

 private:
  static constexpr std::size_t kCells = 64;
  std::vector<std::uint8_t> numbers_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PALETTE_NEAREST_COLOR_H_
