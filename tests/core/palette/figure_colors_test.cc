#include "core/palette/figure_colors.h"

#include <catch2/catch.hpp>
#include <cmath>

#include "core/color/ciede2000.h"
#include "core/color/conversion.h"
#include "core/palette/color_vision.h"

using namespace chalcedony;

TEST_CASE("the first eight class colors stay 10 delta E apart for every kind of color vision",
          "[core][palette]") {
  for (const ColorVision vision : {ColorVision::kFull, ColorVision::kProtanopia,
                                   ColorVision::kDeuteranopia, ColorVision::kTritanopia})
    for (std::size_t a = 0; a < 8; ++a)
      for (std::size_t b = 0; b < a; ++b) {
        const auto lab = [&](std::size_t i) {
          const auto rgb = css_color(css_hex(class_color(i))).in(spaces::kSrgb);
          return convert_color(spaces::kSrgb, spaces::kLab, seen_with(vision, rgb));
        };
        INFO(a << " and " << b << ", vision " << static_cast<int>(vision));
        CHECK(ciede2000(lab(a), lab(b)) >= 10);
      }
}

TEST_CASE("a gray keeps its place under every color vision", "[core][palette]") {
  for (const ColorVision vision : kVisionDeficiencies)
    for (const double v : seen_with(vision, {120, 120, 120})) CHECK(v == Approx(120).margin(0.1));
}

TEST_CASE("steps of the heat ramp are equal in oklab and inside sRGB", "[core][palette]") {
  for (const std::size_t steps : {17u, 64u}) {
    const auto ramp = heat_ramp(steps);
    REQUIRE(ramp.size() == steps);
    std::vector<double> step;
    for (std::size_t i = 0; i < steps; ++i) {
      for (const double v : ramp[i].in(spaces::kSrgb)) CHECK((v > -0.5 && v < 255.5));
      if (i == 0) continue;
      double d = 0;
      for (std::size_t c = 0; c < 3; ++c) d += std::pow(ramp[i].value[c] - ramp[i - 1].value[c], 2);
      step.push_back(std::sqrt(d));
      CHECK(ramp[i].value[0] > ramp[i - 1].value[0]);  // and it only gets lighter
    }
    const auto [least, most] = std::minmax_element(step.begin(), step.end());
    CHECK(*most / *least <= 1.05);
  }
}

TEST_CASE("class colors never run out and stay distinct", "[core][palette]") {
  for (std::size_t a = 0; a < 40; ++a)
    for (std::size_t b = 0; b < a; ++b) CHECK(css_hex(class_color(a)) != css_hex(class_color(b)));
}
