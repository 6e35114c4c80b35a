#include "io/document/known_colors_file.h"

#include <array>
#include <cmath>
#include <cstddef>
#include <set>

#include "core/channel/channel.h"
#include "core/error.h"
#include "core/read_number.h"
#include "io/text/csv.h"

namespace chalcedony {
namespace {

constexpr std::size_t kColumns = 4;  // a name and three channels

/// The space whose channels stand in the header, in order.
const Space& space_of_header(const std::vector<std::string>& header) {
  const std::string remedy = "begin it with a line like name,lab.l,lab.a,lab.b";
  if (header.size() < kColumns || header[0] != "name")
    throw InputError("is no table of known colors", remedy);
  std::vector<Channel> channels;
  try {
    for (std::size_t c = 1; c < kColumns; ++c) channels.push_back(channel_named(header[c]));
  } catch (const UsageError& error) {
    throw InputError("is no table of known colors: " + error.problem(), remedy);
  }
  const Space* const space = channels.front().space;
  if (!space || channels != channels_of(*space))
    throw InputError("has no three channels of one space behind the names", remedy);
  return *space;
}

double value_of(const std::string& text, const std::string& name) {
  const auto value = read_number<double>(text);
  if (!value || !std::isfinite(*value))
    throw InputError("has '" + text + "' as a value of '" + name + "'", "write it as a number");
  return *value;
}

}  // namespace

std::vector<KnownColor> read_known_colors(const std::filesystem::path& path) {
  const auto rows = read_csv(path);
  return errors_at(path.string(), [&] {
    if (rows.empty()) throw InputError("is no table of known colors", "it is empty");
    const Space& space = space_of_header(rows.front());
    std::vector<KnownColor> colors;
    std::set<std::string> names;
    for (std::size_t r = 1; r < rows.size(); ++r) {
      const std::string& name = rows[r][0];
      if (name.empty())
        throw InputError("has a color without a name", "name each as its patch is named");
      if (!names.insert(name).second)
        throw InputError("has '" + name + "' twice", "leave one of them out");
      KnownColor known{name, {&space, {}}};
      for (std::size_t c = 1; c < kColumns; ++c)
        known.color.value[c - 1] = value_of(rows[r][c], name);
      colors.push_back(known);
    }
    return colors;
  });
}

}  // namespace chalcedony
