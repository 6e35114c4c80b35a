#include "figure/plot/axis_strip.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <initializer_list>
#include <string_view>
#include <vector>

namespace chalcedony {
namespace {

constexpr std::size_t kStripSteps = 180;

bool is_one_of(std::string_view name, std::initializer_list<std::string_view> names) {
  return std::find(names.begin(), names.end(), name) != names.end();
}

double at_share(const ChannelInfo& info, double share) {
  return info.low + (info.high - info.low) * share;
}

/// What a channel holds while another one runs through its values.
double ordinary_value(const Space& space, std::size_t c, std::size_t running) {
  const ChannelInfo& info = space.channels[c];
  const std::string_view name = info.name, other = space.channels[running].name;
  const bool colorful = static_cast<int>(running) == space.hue || is_one_of(other, {"s", "c"});
  if (static_cast<int>(c) == space.hue) return 30;
  if (is_one_of(name, {"s", "c"})) return colorful ? at_share(info, name == "s" ? 0.8 : 0.3) : 0;
  if (name == "v" && space.hue >= 0) return at_share(info, 0.9);
  if (is_one_of(name, {"l", "i"})) return at_share(info, 0.62);
  // The gray of axes around 0, and of cb and cr.
  return info.low < 0 ? 0 : at_share(info, 0.5);
}

}  // namespace

std::optional<Color> example_color(const Channel& channel, double value) {
  if (!channel.space) return std::nullopt;
  const Space& space = *channel.space;
  if (is_one_of(space.id, {"xyz-d50", "xyz-d65", "xyy"})) return std::nullopt;
  Color color{&space, {}};
  for (std::size_t c = 0; c < 3; ++c) {
    if (space.channel_count == 1 || c == channel.index) {
      color.value[c] = value;
    } else if (space.is_rgb || space.id == "hwb") {
      color.value[c] = static_cast<int>(c) == space.hue ? 30 : 0;
    } else {
      color.value[c] = ordinary_value(space, c, channel.index);
    }
  }
  return color;
}

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
