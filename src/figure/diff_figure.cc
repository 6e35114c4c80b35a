#include "figure/diff_figure.h"

#include <fmt/format.h>

#include <cmath>

#include "core/palette/figure_colors.h"

namespace chalcedony {
namespace {

constexpr std::size_t kRamp = 64;

/// Grays in the colors of the heat ramp.
Thumbnail heated(Thumbnail map) {
  const std::vector<Color> ramp = heat_ramp(kRamp);
  std::vector<std::array<std::uint8_t, 3>> colors;
  for (const Color& color : ramp) {
    const auto srgb = color.in(spaces::kSrgb);
    colors.push_back({static_cast<std::uint8_t>(std::lround(srgb[0])),
                      static_cast<std::uint8_t>(std::lround(srgb[1])),
                      static_cast<std::uint8_t>(std::lround(srgb[2]))});
  }
  for (std::size_t i = 0; i < map.rgb.size(); i += 3) {
    const auto& color = colors[std::size_t{map.rgb[i]} * (kRamp - 1) / 255];
    for (std::size_t c = 0; c < 3; ++c) map.rgb[i + c] = color[c];
  }
  return map;
}

}  // namespace

void add_diff_figure(Plot& plot, const std::filesystem::path& path,
                     const std::array<std::string, 2>& names, const Thumbnail& first,
                     const Thumbnail& second, const Thumbnail& map, double most,
                     const std::string& formula, const DiffNumbers& numbers) {
  plot.begin(
      path, names[0] + " against " + names[1],
      fmt::format("{}: mean {:.4g}, 95 % at most {:.4g}, {:.2f} % above {:g}", formula,
                  numbers.mean, numbers.percentile_95, numbers.above_percent, numbers.tolerance));
  plot.show({0.02, 0.34, 0.5, 0.87}, names[0], first);
  plot.show({0.02, 0.34, 0.06, 0.43}, names[1], second);
  const Frame shown = plot.show({0.37, 0.90, 0.06, 0.87}, "differences", heated(map));
  // The scale, from no difference at the bottom.
  constexpr std::size_t kSteps = 24;
  const std::vector<Color> ramp = heat_ramp(kSteps);
  const double step = (shown.top - shown.bottom) / static_cast<double>(kSteps);
  for (std::size_t i = 0; i < kSteps; ++i) {
    const double bottom = shown.bottom + step * static_cast<double>(i);
    plot.swatch({0.915, 0.935, bottom, bottom + step}, css_hex(ramp[i]));
  }
  for (int tic = 0; tic <= 4; ++tic)
    plot.label(0.942, shown.bottom + (shown.top - shown.bottom) * tic / 4,
               fmt::format("{}{:g}", tic == 4 ? "\u2265 " : "", most * tic / 4), 10);
}

}  // namespace chalcedony
