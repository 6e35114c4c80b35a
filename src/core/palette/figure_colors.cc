#include "core/palette/figure_colors.h"

#include <array>
#include <cmath>

namespace chalcedony {
namespace {

// OKLCh. Found by search for the largest least distance over the four kinds of color vision.
constexpr std::array<std::array<double, 3>, 8> kFirstColors{{{0.45, 0.10, 250},
                                                             {0.75, 0.14, 75},
                                                             {0.55, 0.17, 25},
                                                             {0.65, 0.12, 165},
                                                             {0.80, 0.08, 230},
                                                             {0.40, 0.13, 320},
                                                             {0.90, 0.12, 105},
                                                             {0.60, 0.05, 60}}};

constexpr double kGoldenAngle = 137.50776405;

/// The way of the heat ramp through oklab: slate, chalcedony blue-gray, honey, near white.
constexpr std::array<std::array<double, 3>, 4> kHeatStops{{{0.24, -0.010, -0.030},
                                                           {0.55, -0.025, -0.050},
                                                           {0.78, 0.030, 0.105},
                                                           {0.985, 0.000, 0.020}}};

double distance(const std::array<double, 3>& a, const std::array<double, 3>& b) {
  return std::hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
}

}  // namespace

Color class_color(std::size_t index) {
  const Space& oklch = spaces::kOklch;
  if (index < kFirstColors.size()) return {&oklch, kFirstColors[index]};
  const std::size_t later = index - kFirstColors.size();
  const double hue = std::fmod(15.0 + kGoldenAngle * static_cast<double>(later), 360.0);
  const std::array<double, 3> lightness{0.70, 0.50, 0.84};
  return {&oklch, {lightness[later % lightness.size()], 0.11, hue}};
}

std::vector<Color> heat_ramp(std::size_t steps) {
  double length = 0;
  for (std::size_t i = 1; i < kHeatStops.size(); ++i)
    length += distance(kHeatStops[i - 1], kHeatStops[i]);
  std::vector<Color> ramp;
  for (std::size_t s = 0; s < steps; ++s) {
    double left = length * static_cast<double>(s) / static_cast<double>(std::max<std::size_t>(1, steps - 1));
    std::size_t leg = 1;
    while (leg + 1 < kHeatStops.size() && left > distance(kHeatStops[leg - 1], kHeatStops[leg]))
      left -= distance(kHeatStops[leg - 1], kHeatStops[leg]), ++leg;
    const double part = left / distance(kHeatStops[leg - 1], kHeatStops[leg]);
    Color color{&spaces::kOklab, {}};
    for (std::size_t c = 0; c < 3; ++c)
      color.value[c] = kHeatStops[leg - 1][c] + part * (kHeatStops[leg][c] - kHeatStops[leg - 1][c]);
    ramp.push_back(color);
  }
  return ramp;
}

}  // namespace chalcedony
