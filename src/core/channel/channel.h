// Channels by name: `hsv.h`, `lab.a`, `gray`, `file.0`, and those that people define.
#ifndef CHALCEDONY_CORE_CHANNEL_CHANNEL_H_
#define CHALCEDONY_CORE_CHANNEL_CHANNEL_H_

#include <cstddef>
#include <cstdint>
#include <memory>
#include <string>
#include <string_view>
#include <utility>
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

struct DerivedChannel;

/// One channel of a space, one as the file stores it, or one that is computed from others
/// (derived_channel.h).
struct Channel {
  const Space* space = nullptr;  // null for a stored or a derived channel
  std::size_t index = 0;
  Around around = {};  // of features only (see feature_names.h)
  std::shared_ptr<const DerivedChannel> derived = nullptr;

  bool is_stored() const { return space == nullptr && derived == nullptr; }
  bool is_local() const { return around.statistic != Around::Statistic::kNone; }
  /// Its unit and usual range; not of a stored channel.
  const ChannelInfo& info() const;
  bool is_hue() const { return space && space->hue == static_cast<int>(index); }
  /// The channel itself, without what is around a pixel.
  Channel plain() const;

  /// The name users write, in lower case: `hsv.h`, `file.0`; `mean5(lab.l)` of a local one.
  std::string name() const;
  /// The name of its unit as figures and messages show it: "0-255", "degrees", "%", "".
  std::string unit_name() const;
  /// What stands behind its name where it is shown: the name of its unit, or of a channel without
  /// one the white of its space, as "white D50"; else "".
  std::string shown_unit() const;

  /// Derived channels are equal when they are defined alike.
  friend bool operator==(const Channel& a, const Channel& b);
};

/// The channels people have defined, in order.
using DerivedChannels = std::vector<std::shared_ptr<const DerivedChannel>>;

/// What names can mean beside the channels of spaces and of the file.
struct ChannelNames {
  DerivedChannels derived;
  const Space* bare_space = nullptr;  // whose channels may be named without it: `h` for `hsv.h`

  ChannelNames() = default;
  ChannelNames(DerivedChannels channels, const Space* bare = nullptr)
      : derived(std::move(channels)), bare_space(bare) {}
};

/// Whether a stored channel from number `first` on is needed for it, itself or by its formula.
bool needs_stored(const Channel& channel, std::size_t first = 0);

/// The channel with this name, case aside. A gray space is its own channel.
///
/// Errors    UsageError that names the nearest channel
Channel channel_named(std::string_view name, const ChannelNames& names = {});

/// A list such as `srgb.r,srgb.g,hsv.h`; the name of a whole space stands for its channels.
///
/// Errors    UsageError for an unknown or a repeated channel, or an empty list
std::vector<Channel> channels_named(std::string_view list, const ChannelNames& names = {});

/// The channels of a space in order.
std::vector<Channel> channels_of(const Space& space);

/// Where a channel stands in a list; the size of the list when it does not.
std::size_t place_of(const Channel& channel, const std::vector<Channel>& channels);

/// Every channel name users may write, stored channels aside.
std::vector<std::string> channel_names(const ChannelNames& names = {});

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CHANNEL_CHANNEL_H_
