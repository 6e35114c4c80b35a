// Light of colors, to be mixed.
#ifndef CHALCEDONY_DEMO_LINEAR_LIGHT_H_
#define CHALCEDONY_DEMO_LINEAR_LIGHT_H_

#include <array>
#include <cstddef>
#include <string>

#include "core/color/css_color.h"
#include "core/color/srgb.h"

namespace chalcedony::demo {

/// Linear red, green and blue of sRGB, 0-1.
using Linear = std::array<double, 3>;

inline Linear linear_light(const std::string& css) {
  // In double, so that what is drawn does not hang on the arithmetic of the kernels.
  Linear color = css_color(css).in(spaces::kSrgb);
  for (double& v : color) v = srgb_decoded(v / 255);
  return color;
}

inline Linear mixed_light(const Linear& a, const Linear& b, double share_of_b) {
  Linear out;
  for (std::size_t c = 0; c < out.size(); ++c) out[c] = a[c] + (b[c] - a[c]) * share_of_b;
  return out;
}

}  // namespace chalcedony::demo

#endif  // CHALCEDONY_DEMO_LINEAR_LIGHT_H_
