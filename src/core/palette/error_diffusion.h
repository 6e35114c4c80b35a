// Recolors rows with few colors so that neighborhoods keep their mean: what a pixel is off is
// handed on to the pixels after it.
#ifndef CHALCEDONY_CORE_PALETTE_ERROR_DIFFUSION_H_
#define CHALCEDONY_CORE_PALETTE_ERROR_DIFFUSION_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/palette/nearest_color.h"

namespace chalcedony {

/// Takes the rows of a picture from top to bottom. Errors are of linear light, which is what eyes
/// mix from afar; they go 7/16 on, 3/16, 5/16 and 1/16 below, every other row from right to left.
///
/// Source    Floyd and Steinberg (1976), Proc. Society for Information Display 17(2), 75-77
class ErrorDiffusion {
 public:
  ErrorDiffusion(std::uint32_t width, const std::vector<Color>& palette, DifferenceFormula formula);

  /// The number of the color of each pixel of the next row, 1 for the first; 0 where `counted`
  /// (null: everywhere) is 0, and nothing is handed on there.
  ///
  /// Units     linear sRGB in 0-255
  void next_row(const ConstPlanes& linear, const std::uint8_t* counted, std::uint8_t* numbers);

 private:
  using Light = std::array<float, 3>;

  std::uint8_t nearest(const Light& linear) const;

  std::uint32_t width_;
  NearestColorTable nearest_;
  std::vector<Light> colors_;        // in linear light
  std::vector<std::uint8_t> cells_;  // of `nearest_`, for equal steps of linear light
  std::vector<Light> own_, below_;   // errors handed down to this row and to the next
  bool leftwards_ = false;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PALETTE_ERROR_DIFFUSION_H_
