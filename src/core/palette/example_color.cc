#include "core/palette/example_color.h"

#include <algorithm>
#include <initializer_list>
#include <string_view>

namespace chalcedony {
namespace {

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

}  // namespace chalcedony
