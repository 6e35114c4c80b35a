#include "core/palette/color_vision.h"

#include <algorithm>

#include "core/color/conversion.h"

namespace chalcedony {
namespace {

constexpr Affine kProtanopia{{{{0.152286, 1.052583, -0.204868},
                               {0.114503, 0.786281, 0.099216},
                               {-0.003882, -0.048116, 1.051998}}},
                             {}};
constexpr Affine kDeuteranopia{{{{0.367322, 0.860646, -0.227968},
                                 {0.280085, 0.672501, 0.047413},
                                 {-0.011820, 0.042940, 0.968881}}},
                               {}};
constexpr Affine kTritanopia{{{{1.255528, -0.076749, -0.178779},
                               {-0.078411, 0.930809, 0.147602},
                               {0.004733, 0.691367, 0.303900}}},
                             {}};

}  // namespace

std::string_view name_of(ColorVision vision) {
  constexpr std::array<std::string_view, kColorVisions> kNames{"full", "protanopia", "deuteranopia",
                                                               "tritanopia"};
  return kNames[static_cast<std::size_t>(vision)];
}

std::string_view missing_cones(ColorVision deficiency) {
  return deficiency == ColorVision::kProtanopia     ? "red"
         : deficiency == ColorVision::kDeuteranopia ? "green"
                                                    : "blue";
}

std::array<double, 3> seen_with(ColorVision vision, const std::array<double, 3>& srgb) {
  if (vision == ColorVision::kFull) return srgb;
  const Affine& matrix = vision == ColorVision::kProtanopia     ? kProtanopia
                         : vision == ColorVision::kDeuteranopia ? kDeuteranopia
                                                                : kTritanopia;
  auto linear = image_of(matrix, convert_color(spaces::kSrgb, spaces::kSrgbLinear, srgb));
  for (double& v : linear) v = std::clamp(v, 0.0, 255.0);
  return convert_color(spaces::kSrgbLinear, spaces::kSrgb, linear);
}

Color seen_with(ColorVision vision, const Color& color) {
  return {&spaces::kSrgb, seen_with(vision, css_color(css_hex(color)).in(spaces::kSrgb))};
}

}  // namespace chalcedony
