#include "figure/diff_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/palette/figure_colors.h"
#include "figure/plot/heat_scale.h"
#include "io/text/number_text.h"

namespace chalcedony {
namespace {

constexpr std::size_t kRamp = 64;
// Of the page, in pixels: between the scale and its numbers, and how high it is beside a flat
// picture.
constexpr double kTicGap = 10, kLeastScale = 160;

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

/// The colors of differences, from none at the bottom.
void draw_scale(Plot& plot, Box scale, double most) {
  constexpr std::size_t kSteps = 24;
  constexpr int kTics = 4;
  for (int tic = 0; tic <= kTics; ++tic)
    plot.label(scale.right + kTicGap, scale.bottom - scale.height() * tic / kTics,
               fmt::format("{}{:g}", tic == kTics ? "\u2265 " : "", most * tic / kTics), 10);
  const double step = scale.height() / static_cast<double>(kSteps);
  for (const Color& color : heat_ramp(kSteps)) plot.swatch(scale.cut_bottom(step), css_hex(color));
}

}  // namespace

void add_diff_figure(Plot& plot, const std::filesystem::path& path,
                     const std::array<std::string, 2>& names, const Thumbnail& first,
                     const Thumbnail& second, const Thumbnail& map, double most,
                     const std::string& formula, const DiffNumbers& numbers) {
  Box body =
      plot.begin(path, names[0] + " against " + names[1],
                 fmt::format("{}: mean {}, 95 % at most {}, {:.2f} % above {:g}", formula,
                             rounded_text(numbers.mean, 4), rounded_text(numbers.percentile_95, 4),
                             numbers.above_percent, numbers.tolerance));
  const auto rows = rows_of(body.cut_left(Plot::kPictureBeside, Plot::kGap), 2, Plot::kGap);
  plot.show(rows[0], names[0], first);
  plot.show(rows[1], names[1], second);
  const Box scale = cut_color_scale(body);
  const Box shown = plot.show(body, "differences", heated(map));
  const double bottom = std::max(shown.bottom, shown.top + kLeastScale);
  draw_scale(plot, {scale.left, shown.top, scale.right, bottom}, most);
}

}  // namespace chalcedony
