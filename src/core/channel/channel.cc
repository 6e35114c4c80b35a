#include "core/channel/channel.h"

#include <algorithm>

#include "core/channel/channel_hint.h"
#include "core/channel/derived_channel.h"
#include "core/error.h"
#include "core/letter_case.h"
#include "core/read_number.h"
#include "core/split_list.h"

namespace chalcedony {
namespace {

/// `file.N`, or nothing.
bool parse_stored(const std::string& name, Channel& channel) {
  if (!name.starts_with("file.")) return false;
  const auto index = read_number<std::size_t>(std::string_view(name).substr(5));
  if (index) channel.index = *index;
  return index.has_value();
}

}  // namespace

bool operator==(const Channel& a, const Channel& b) {
  if (a.space != b.space || a.index != b.index || !(a.around == b.around)) return false;
  if (a.derived == b.derived) return true;
  return a.derived && b.derived && a.derived->name == b.derived->name &&
         a.derived->formula == b.derived->formula && a.derived->channels == b.derived->channels;
}

const ChannelInfo& Channel::info() const {
  return derived ? derived->info : space->channels[index];
}

Channel Channel::plain() const {
  Channel channel = *this;
  channel.around = {};
  return channel;
}

std::string Channel::name() const {
  if (is_local())
    return (around.statistic == Around::Statistic::kMean ? "mean" : "deviation") +
           std::to_string(around.side) + "(" + plain().name() + ")";
  if (derived) return derived->name;
  if (is_stored()) return "file." + std::to_string(index);
  if (space->channel_count == 1) return std::string(space->id);
  return std::string(space->id) + "." + std::string(space->channels[index].name);
}

std::string Channel::unit_name() const {
  if (is_stored()) return "as stored";
  if (derived) return derived->unit;
  switch (info().unit) {
    case Unit::kOf255:
      return "0-255";
    case Unit::kDegrees:
      return "degrees";
    case Unit::kPercent:
      return "%";
    case Unit::kNumber:
      return "";
  }
  return "";
}

std::string Channel::shown_unit() const {
  const std::string unit = unit_name();
  if (!unit.empty() || !space || space->white.empty()) return unit;
  return "white " + std::string(space->white);
}

bool needs_stored(const Channel& channel, std::size_t first) {
  if (channel.is_stored()) return channel.index >= first;
  return channel.derived &&
         std::any_of(channel.derived->channels.begin(), channel.derived->channels.end(),
                     [&](const Channel& behind) { return needs_stored(behind, first); });
}

Channel channel_named(std::string_view written, const ChannelNames& names) {
  const std::string name = lower_case(without_outer_spaces(written));
  for (const auto& channel : names.derived)
    if (channel->name == name) return Channel{nullptr, 0, {}, channel};
  Channel stored;
  if (parse_stored(name, stored)) return stored;
  for (const Space* space : all_spaces()) {
    if (space->internal) continue;
    for (const Channel& channel : channels_of(*space))
      if (channel.name() == name ||
          (space == names.bare_space && space->channels[channel.index].name == name))
        return channel;
  }
  if (name.find('(') != std::string::npos)
    throw UsageError("no channel is called '" + std::string(written) + "'",
                     "only train looks at what is around a pixel");
  const std::vector<std::string> likely = channels_like(name, names);
  throw UsageError("no channel is called '" + std::string(written) + "'",
                   likely.empty() ? "write a space and a channel of it, as in hsv.h or lab.a"
                                  : "did you mean " + one_of_names(likely) + "?");
}

std::vector<Channel> channels_named(std::string_view list, const ChannelNames& names) {
  std::vector<Channel> channels;
  for (const std::string& item : split_list(list)) {
    const Space* whole = find_space(item);
    const auto found = whole && !whole->internal ? channels_of(*whole)
                                                 : std::vector<Channel>{channel_named(item, names)};
    for (const Channel& channel : found) {
      if (std::find(channels.begin(), channels.end(), channel) != channels.end())
        throw UsageError("channel " + channel.name() + " is listed twice",
                         "name each channel once");
      channels.push_back(channel);
    }
  }
  return channels;
}

std::vector<Channel> channels_of(const Space& space) {
  std::vector<Channel> channels;
  for (std::size_t i = 0; i < space.channel_count; ++i) channels.push_back({&space, i});
  return channels;
}

std::size_t place_of(const Channel& channel, const std::vector<Channel>& channels) {
  return static_cast<std::size_t>(std::find(channels.begin(), channels.end(), channel) -
                                  channels.begin());
}

std::vector<std::string> channel_names(const ChannelNames& names) {
  std::vector<std::string> all;
  for (const Space* space : all_spaces())
    if (!space->internal)
      for (const Channel& channel : channels_of(*space)) all.push_back(channel.name());
  for (const auto& channel : names.derived) all.push_back(channel->name);
  if (names.bare_space)
    for (const Channel& channel : channels_of(*names.bare_space))
      all.emplace_back(channel.info().name);
  return all;
}

}  // namespace chalcedony
