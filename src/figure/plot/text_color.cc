#include "figure/plot/text_color.h"

#include "core/palette/contrast.h"

namespace chalcedony {

const char* text_color_on(const std::string& color) {
  const Color ground = css_color(color);
  const double dark = contrast_ratio(ground, css_color(kDarkText)),
               light = contrast_ratio(ground, css_color(kLightText));
  return dark > light ? kDarkText : kLightText;
}

}  // namespace chalcedony
