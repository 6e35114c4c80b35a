// Class numbers as colors, for figures.
#ifndef CHALCEDONY_CORE_PALETTE_CLASS_PAINTER_H_
#define CHALCEDONY_CORE_PALETTE_CLASS_PAINTER_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <string>
#include <vector>

#include "core/color/css_color.h"
#include "core/pixel/planes.h"

namespace chalcedony {

/// One for each thread; its planes hold until the next call.
class ClassPainter {
 public:
  /// The CSS colors of class 1, 2, ...; class 0 is black.
  explicit ClassPainter(const std::vector<std::string>& colors) : planes_(3) {
    colors_.push_back({0, 0, 0});
    for (const std::string& color : colors) colors_.push_back(css_color(color).in(spaces::kSrgb));
  }

  /// sRGB planes in 0-255 of n pixels, at most kBlockPixels, with numbers of any size.
  template <class Number>
  ConstPlanes paint(const Number* labels, std::size_t n) {
    for (std::size_t c = 0; c < 3; ++c)
      for (std::size_t i = 0; i < n; ++i)
        planes_.plane(c)[i] = static_cast<float>(colors_[labels[i]][c]);
    return read_only(planes_.planes());
  }

 private:
  std::vector<std::array<double, 3>> colors_;
  PlaneBuffer planes_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PALETTE_CLASS_PAINTER_H_
