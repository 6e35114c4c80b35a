#include "core/feature/feature_names.h"

#include <algorithm>
#include <utility>

#include "core/error.h"
#include "core/letter_case.h"
#include "core/read_number.h"
#include "core/split_list.h"

namespace chalcedony {
namespace {

constexpr std::uint32_t kLeastSide = 3, kLargestSide = 255;

/// A name in lower case, without blanks.
std::string plainly(std::string_view written) {
  std::string name = lower_case(std::string(written));
  std::erase(name, ' ');
  return name;
}

/// `mean5(` or the like at the begin of a name, taken off it with the bracket at its end.
Around take_around(std::string& name) {
  const std::size_t open = name.find('(');
  if (open == std::string::npos || name.back() != ')') return {};
  const std::string kind = name.substr(0, open);
  Around around;
  std::size_t digits = 0;
  for (const auto& [word, statistic] : {std::pair{"mean", Around::Statistic::kMean},
                                        std::pair{"deviation", Around::Statistic::kDeviation}})
    if (kind.starts_with(word)) {
      around.statistic = statistic;
      digits = std::string_view(word).size();
    }
  if (digits == 0)
    throw UsageError("'" + kind + "' is nothing that is taken around a pixel",
                     "write mean5(...) or deviation5(...)");
  around.side = read_number<std::uint32_t>(std::string_view(kind).substr(digits)).value_or(0);
  if (around.side % 2 == 0 || around.side < kLeastSide || around.side > kLargestSide)
    throw UsageError("'" + kind + "': the side of the square is an odd number of pixels, 3 to 255",
                     "as in " + kind.substr(0, digits) + "5(...)");
  name = name.substr(open + 1, name.size() - open - 2);
  return around;
}

Channel taken_around(Channel channel, const Around& around) {
  channel.around = around;
  if (channel.is_local() && channel.is_hue())
    throw UsageError("a hue is an angle, of which no mean is taken around a pixel",
                     "use channels such as lab.a and lab.b");
  return channel;
}

}  // namespace

Channel feature_channel_named(std::string_view written, const ChannelNames& names) {
  std::string name = plainly(written);
  const Around around = take_around(name);
  return taken_around(channel_named(name, names), around);
}

std::vector<Channel> feature_channels_named(std::string_view list, const ChannelNames& names) {
  std::vector<Channel> channels;
  for (const std::string& written : split_list(list)) {
    std::string item = plainly(written);
    const Around around = take_around(item);
    for (const Channel& plain : channels_named(item, names)) {
      const Channel channel = taken_around(plain, around);
      if (std::find(channels.begin(), channels.end(), channel) != channels.end())
        throw UsageError("feature " + channel.name() + " is listed twice", "name each once");
      channels.push_back(channel);
    }
  }
  return channels;
}

}  // namespace chalcedony
