#include "cli/text/channel_text.h"

#include <fmt/format.h>

#include <algorithm>

namespace chalcedony::cli {

const Space* space_in(const std::string& channel) {
  const std::size_t open = channel.find('(');
  const std::size_t begin = open == std::string::npos ? 0 : open + 1;
  return find_space(channel.substr(begin, channel.find('.', begin) - begin));
}

void print_whites(const std::vector<std::string>& channels, std::ostream& out) {
  std::vector<const Space*> spaces;
  for (const std::string& channel : channels) {
    const Space* const space = space_in(channel);
    if (space && !space->white.empty() &&
        std::find(spaces.begin(), spaces.end(), space) == spaces.end())
      spaces.push_back(space);
  }
  if (spaces.empty()) return;
  std::string whites;
  for (const Space* const space : spaces)
    whites += fmt::format("{}of {}: {}", whites.empty() ? "" : ", ", space->id, space->white);
  out << "  white " << whites << '\n';
}

}  // namespace chalcedony::cli
