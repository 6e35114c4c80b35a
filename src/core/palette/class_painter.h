// Class numbers as colors.
#ifndef CHALCEDONY_CORE_PALETTE_CLASS_PAINTER_H_
#define CHALCEDONY_CORE_PALETTE_CLASS_PAINTER_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <string>
#include <vector>

#include "core/color/css_color.h"
#include "core/pixel/label.h"
#include "core/planes.h"

namespace chalcedony {

/// One for each thread; its planes hold until the next call.
class ClassPainter {
 public:
  /// The CSS colors of class 1, 2, ...; class 0 is black.
  explicit ClassPainter(const std::vector<std::string>& colors);
  /// The colors of class 1, 2, ... and that of class 0.
  ClassPainter(const std::vector<Color>& colors, const Color& none);

  /// sRGB planes in 0-255 of n pixels, at most kBlockPixels.
  ConstPlanes paint(const std::uint8_t* labels, std::size_t n);
  ConstPlanes paint(const Label* labels, std::size_t n);

  /// The same laid over the picture's sRGB: `share` of the class color, 0-1, and the rest of the
  /// picture's. Pixels without a class stay as they are.
  ConstPlanes paint_over(const ConstPlanes& picture, const Label* labels, float share,
                         std::size_t n);

 private:
  template <class Number>
  ConstPlanes painted(const Number* labels, std::size_t n);

  std::vector<std::array<float, 3>> colors_;  // of each number
  PlaneBuffer planes_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PALETTE_CLASS_PAINTER_H_
