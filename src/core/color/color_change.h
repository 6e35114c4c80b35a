// How a color differs from what it was.
#ifndef CHALCEDONY_CORE_COLOR_COLOR_CHANGE_H_
#define CHALCEDONY_CORE_COLOR_COLOR_CHANGE_H_

#include <array>

namespace chalcedony {

/// The differences later minus earlier, in Lab.
struct ColorChange {
  double delta_e = 0;  // CIEDE2000
  double lightness = 0, a = 0, b = 0;
  double chroma = 0;

  /// Of the three differences the largest by its size.
  double largest() const;
};

/// Units     Lab as in the contract
/// Source    CIE 15:2004, 8.2.1.2; ciede2000()
ColorChange color_change(const std::array<double, 3>& earlier, const std::array<double, 3>& later);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_COLOR_COLOR_CHANGE_H_
