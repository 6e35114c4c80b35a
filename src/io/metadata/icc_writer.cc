#include "io/metadata/icc_writer.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>
#include <string>
#include <string_view>
#include <utility>

#include "core/color/conversion.h"
#include "core/planes.h"
#include "io/metadata/big_endian.h"

namespace chalcedony {
namespace {

using Bytes = std::vector<std::byte>;

constexpr std::size_t kCurveSteps = 1024;
static_assert(kCurveSteps <= kBlockPixels);
constexpr std::uint32_t kVersion = 0x02400000;  // 2.4: every reader knows curves and matrices

void append_fixed(Bytes& bytes, double value) {
  const auto fixed = static_cast<std::int32_t>(std::lround(value * 65536));
  append_number(bytes, static_cast<std::uint32_t>(fixed), 4);
}
Bytes typed(std::string_view type) {
  Bytes bytes;
  append_text(bytes, type);
  append_number(bytes, 0, 4);
  return bytes;
}

/// XYZ (D50, Y = 1 for white) of colors 0 to 1, at most kBlockPixels of them.
std::vector<std::array<double, 3>> xyz_of(const Space& space,
                                          const std::vector<std::array<double, 3>>& colors) {
  PlaneBuffer in, out;
  for (std::size_t i = 0; i < colors.size(); ++i)
    for (std::size_t c = 0; c < 3; ++c) in.plane(c)[i] = static_cast<float>(255 * colors[i][c]);
  Conversion(space, spaces::kXyzD50).run(read_only(in.planes()), out.planes(), colors.size());
  std::vector<std::array<double, 3>> found;
  for (std::size_t i = 0; i < colors.size(); ++i)
    found.push_back({out.plane(0)[i], out.plane(1)[i], out.plane(2)[i]});
  return found;
}

Bytes xyz_tag(const std::array<double, 3>& xyz) {
  Bytes bytes = typed("XYZ ");
  for (const double value : xyz) append_fixed(bytes, value);
  return bytes;
}

/// The luminance of grays: linear samples, as they are the same for all channels.
Bytes curve_tag(const Space& space) {
  std::vector<std::array<double, 3>> grays;
  for (std::size_t i = 0; i < kCurveSteps; ++i) {
    const double v = static_cast<double>(i) / (kCurveSteps - 1);
    grays.push_back({v, v, v});
  }
  Bytes bytes = typed("curv");
  append_number(bytes, kCurveSteps, 4);
  for (const auto& xyz : xyz_of(space, grays))
    append_number(bytes, static_cast<std::uint32_t>(std::lround(65535 * std::min(1.0, xyz[1]))), 2);
  return bytes;
}

Bytes description_tag(const std::string& text) {
  constexpr std::size_t kOtherScripts = 78;
  Bytes bytes = typed("desc");
  append_number(bytes, static_cast<std::uint32_t>(text.size() + 1), 4);
  append_text(bytes, text);
  bytes.resize(bytes.size() + 1 + kOtherScripts);
  return bytes;
}

Bytes text_tag(std::string_view text) {
  Bytes bytes = typed("text");
  append_text(bytes, text);
  bytes.push_back(std::byte{0});
  return bytes;
}

/// `model`: the color model of the samples, in four letters.
Bytes header(std::size_t size, std::string_view model) {
  Bytes bytes;
  append_number(bytes, static_cast<std::uint32_t>(size), 4);
  append_number(bytes, 0, 4);
  append_number(bytes, kVersion, 4);
  append_text(bytes, "mntr");
  append_text(bytes, model);
  append_text(bytes, "XYZ ");
  bytes.resize(36);
  append_text(bytes, "acsp");
  bytes.resize(68);
  for (const double value : {0.9642, 1.0, 0.8249}) append_fixed(bytes, value);  // D50
  bytes.resize(128);
  return bytes;
}

using Tags = std::vector<std::pair<std::string_view, Bytes>>;

/// Header, table and tags. A tag without bytes is the same as the one before it.
Bytes profile_of(std::string_view model, const Tags& tags) {
  const std::size_t start = 128 + 4 + 12 * tags.size();
  Bytes table, body;
  append_number(table, static_cast<std::uint32_t>(tags.size()), 4);
  std::size_t place = 0, size = 0;  // of the tag
  for (const auto& [name, bytes] : tags) {
    if (!bytes.empty()) {
      place = start + body.size();
      size = bytes.size();
      body.insert(body.end(), bytes.begin(), bytes.end());
      body.resize((body.size() + 3) / 4 * 4);
    }
    append_text(table, name);
    append_number(table, static_cast<std::uint32_t>(place), 4);
    append_number(table, static_cast<std::uint32_t>(size), 4);
  }
  Bytes profile = header(start + body.size(), model);
  profile.insert(profile.end(), table.begin(), table.end());
  profile.insert(profile.end(), body.begin(), body.end());
  return profile;
}

/// What every profile says first.
Tags first_tags(const Space& space) {
  return {{"desc", description_tag(std::string(space.title))},
          {"cprt", text_tag("No copyright is claimed")},
          {"wtpt", xyz_tag({0.9642, 1.0, 0.8249})}};
}

}  // namespace

std::vector<std::byte> icc_profile_of(const Space& space) {
  const auto primaries = xyz_of(space, {{1, 0, 0}, {0, 1, 0}, {0, 0, 1}});
  Tags tags = first_tags(space);
  tags.insert(tags.end(), {{"rXYZ", xyz_tag(primaries[0])},
                           {"gXYZ", xyz_tag(primaries[1])},
                           {"bXYZ", xyz_tag(primaries[2])},
                           {"rTRC", curve_tag(space)},
                           {"gTRC", {}},
                           {"bTRC", {}}});
  return profile_of("RGB ", tags);
}

std::vector<std::byte> gray_icc_profile_of(const Space& space) {
  Tags tags = first_tags(space);
  tags.emplace_back("kTRC", curve_tag(space));
  return profile_of("GRAY", tags);
}

}  // namespace chalcedony
