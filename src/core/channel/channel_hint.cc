#include "core/channel/channel_hint.h"

#include <algorithm>
#include <array>
#include <optional>

#include "core/letter_case.h"
#include "core/nearest_name.h"

namespace chalcedony {
namespace {

constexpr std::size_t kMostHints = 3;

struct TradeWord {
  std::string_view word;
  std::array<std::string_view, kMostHints> channels;  // empty: no more
};

constexpr TradeWord kTradeWords[] = {{"hue", {"hsv.h", "oklch.h", "hsl.h"}},
                                     {"saturation", {"hsv.s", "hsl.s", "hsi.s"}},
                                     {"value", {"hsv.v"}},
                                     {"lightness", {"lab.l", "oklab.l", "hsl.l"}},
                                     {"brightness", {"lab.l", "hsv.v", "gray"}},
                                     {"chroma", {"lch.c", "oklch.c"}},
                                     {"intensity", {"hsi.i", "gray"}},
                                     {"luma", {"gray", "gray-709", "ycbcr.y"}},
                                     {"luminance", {"xyy.lum", "gray-linear"}},
                                     {"red", {"srgb.r", "srgb-linear.r"}},
                                     {"green", {"srgb.g", "srgb-linear.g"}},
                                     {"blue", {"srgb.b", "srgb-linear.b"}},
                                     {"cyan", {"cmy.c"}},
                                     {"magenta", {"cmy.m"}},
                                     {"yellow", {"cmy.y"}},
                                     {"whiteness", {"hwb.w"}},
                                     {"blackness", {"hwb.b"}}};

std::vector<std::string> names_of_word(std::string_view written) {
  std::vector<std::string> words, names;
  for (const TradeWord& known : kTradeWords) words.emplace_back(known.word);
  const auto meant = written.size() < 3 ? std::nullopt : nearest_name(written, words);
  for (const TradeWord& known : kTradeWords)
    if (known.word == meant)
      for (const std::string_view channel : known.channels)
        if (!channel.empty()) names.emplace_back(channel);
  return names;
}

/// The channels of spaces that bear this name in them: `r` of srgb and others.
std::vector<std::string> names_of_letter(std::string_view letter) {
  std::vector<std::string> names;
  for (const Space* space : all_spaces())
    for (const Channel& channel : channels_of(*space))
      if (!space->internal && space->channel_count > 1 && channel.info().name == letter)
        names.push_back(channel.name());
  return names;
}

/// The channels of a known space that are nearest to what follows its name.
std::vector<std::string> names_of_space(std::string_view name) {
  const std::size_t dot = name.find('.');
  const Space* const space = find_space(name.substr(0, dot));
  std::vector<std::string> nearest;
  if (dot == std::string_view::npos || !space || space->internal) return nearest;
  std::size_t least = name.size();
  for (const Channel& channel : channels_of(*space)) {
    const std::size_t distance = edit_distance(name, channel.name());
    if (distance < least) nearest.clear();
    if (distance <= least) nearest.push_back(channel.name());
    least = std::min(least, distance);
  }
  return nearest;
}

}  // namespace

std::vector<std::string> channels_like(std::string_view written, const ChannelNames& names) {
  const std::string name = lower_case(written);
  std::vector<std::string> found = names_of_space(name);
  if (found.empty()) found = names_of_word(name);
  if (found.empty()) found = names_of_letter(name);
  if (found.empty())
    if (const auto nearest = nearest_name(name, channel_names(names))) found.push_back(*nearest);
  found.resize(std::min(found.size(), kMostHints));
  return found;
}

std::string one_of_names(const std::vector<std::string>& names) {
  std::string text;
  for (std::size_t i = 0; i < names.size(); ++i) {
    if (i > 0) text += i + 1 == names.size() ? " or " : ", ";
    text += "'" + names[i] + "'";
  }
  return text;
}

}  // namespace chalcedony
