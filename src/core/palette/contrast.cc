#include "core/palette/contrast.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/color/srgb.h"

namespace chalcedony {

double relative_luminance(const Color& color) {
  constexpr std::array<double, 3> weights{0.2126, 0.7152, 0.0722};
  const auto srgb = color.in(spaces::kSrgb);
  double luminance = 0;
  for (std::size_t c = 0; c < 3; ++c) {
    const double v = std::round(std::clamp(srgb[c], 0.0, 255.0)) / 255;
    luminance += weights[c] * srgb_decoded(v);
  }
  return luminance;
}

double contrast_ratio(const Color& a, const Color& b) {
  const auto [dark, light] = std::minmax({relative_luminance(a), relative_luminance(b)});
  return (light + 0.05) / (dark + 0.05);
}

}  // namespace chalcedony
