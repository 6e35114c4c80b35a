#include "figure/plot/axis_strip.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <vector>

#include "core/palette/example_color.h"

namespace chalcedony {
namespace {

constexpr std::size_t kStripSteps = 180;

}  // namespace

bool draw_axis_strip(Plot& plot, const Box& box, const Channel& channel, double low, double high) {
  if (!example_color(channel, low)) return false;
  std::vector<std::uint8_t> rgb;
  for (std::size_t i = 0; i < kStripSteps; ++i) {
    const double value =
        low + (high - low) * (static_cast<double>(i) + 0.5) / static_cast<double>(kStripSteps);
    for (const double v : example_color(channel, value)->in(spaces::kSrgb))
      rgb.push_back(static_cast<std::uint8_t>(std::lround(std::clamp(v, 0.0, 255.0))));
  }
  // An image of a single row is not drawn.
  const std::vector<std::uint8_t> row = rgb;
  rgb.insert(rgb.end(), row.begin(), row.end());
  plot.panel(box);
  plot.line("unset border; unset tics; unset grid; unset key");
  plot.line(fmt::format("set xrange [0:{}]; set yrange [0:1]", kStripSteps));
  plot.line(
      fmt::format("plot {} binary array=({},2) dx=1 dy=0.5 origin=(0.5,0.25) format='%uchar' with "
                  "rgbimage notitle",
                  plot.store(rgb), kStripSteps));
  return true;
}

}  // namespace chalcedony
