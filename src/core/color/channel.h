// Channels by name: `hsv.h`, `lab.a`, `gray`, `file.0`.
#ifndef CHALCEDONY_CORE_COLOR_CHANNEL_H_
#define CHALCEDONY_CORE_COLOR_CHANNEL_H_

#include <cstddef>
#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

#include "core/color/space.h"

namespace chalcedony {

/// What of a channel is taken at a pixel: its value there, or a statistic of the square of pixels
/// around it.
struct Around {
  enum class Statistic : std::uint8_t { kNone, kMean, kDeviation };
  Statistic statistic = Statistic::kNone;
  std::uint32_t side = 1;  // of the square, in pixels; odd

  friend bool operator==(const Around&, const Around&) = default;
};

/// One channel of a space, or one channel as the file stores it.
struct Channel {
  const Space* space = nullptr;  // null for a stored channel
  std::size_t index = 0;
  Around around = {};  // of features only (see feature_names.h)

  bool is_stored() const { return space == nullptr; }
  bool is_local() const { return around.statistic != Around::Statistic::kNone; }
  /// Its unit and usual range; of a channel of a space only.
  const ChannelInfo& info() const { return space->channels[index]; }
  bool is_hue() const { return space && space->hue == static_cast<int>(index); }

  /// The name users write, in lower case: `hsv.h`, `file.0`; `mean5(lab.l)` of a local one.
  std::string name() const;
  /// The name of its unit as figures and messages show it: "0-255", "degrees", "%", "".
  std::string unit_name() const;

  friend bool operator==(const Channel&, const Channel&) = default;
};

/// The channel with this name, case aside. A gray space is its own channel; a bare channel name is
/// looked up in `bare_space` when one is given.
///
/// Errors    UsageError that names the nearest channel
Channel channel_named(std::string_view name, const Space* bare_space = nullptr);

/// A list such as `srgb.r,srgb.g,hsv.h`; the name of a whole space stands for its channels.
///
/// Errors    UsageError for an unknown or a repeated channel, or an empty list
std::vector<Channel> channels_named(std::string_view list, const Space* bare_space = nullptr);

/// The channels of a space in order.
std::vector<Channel> channels_of(const Space& space);

/// Every channel name users may write, stored channels aside.
std::vector<std::string> channel_names();

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_COLOR_CHANNEL_H_
