// Small color profiles for tests, put together tag by tag.
#ifndef CHALCEDONY_TESTS_SUPPORT_ICC_H_
#define CHALCEDONY_TESTS_SUPPORT_ICC_H_

#include <cmath>
#include <cstdint>
#include <string>
#include <utility>
#include <vector>

#include "core/color/affine.h"

namespace chalcedony::test {

using IccBytes = std::vector<std::uint8_t>;
using IccTags = std::vector<std::pair<std::string, IccBytes>>;

inline void put_u32(IccBytes& bytes, std::uint32_t value) {
  for (int shift = 24; shift >= 0; shift -= 8)
    bytes.push_back(static_cast<std::uint8_t>(value >> shift));
}
inline void put_u16(IccBytes& bytes, std::uint32_t value) {
  bytes.push_back(static_cast<std::uint8_t>(value >> 8));
  bytes.push_back(static_cast<std::uint8_t>(value));
}
inline void put_fixed(IccBytes& bytes, double value) {
  put_u32(bytes, static_cast<std::uint32_t>(std::lround(value * 65536)));
}
inline IccBytes tag_of_type(const std::string& type) {
  IccBytes bytes(type.begin(), type.end());
  put_u32(bytes, 0);
  return bytes;
}

inline IccBytes icc_xyz(double x, double y, double z) {
  IccBytes bytes = tag_of_type("XYZ ");
  for (const double v : {x, y, z}) put_fixed(bytes, v);
  return bytes;
}
inline IccBytes icc_gamma(double gamma) {
  IccBytes bytes = tag_of_type("curv");
  put_u32(bytes, 1);
  put_u16(bytes, static_cast<std::uint32_t>(std::lround(gamma * 256)));
  return bytes;
}
inline IccBytes icc_table(const std::vector<double>& values) {
  IccBytes bytes = tag_of_type("curv");
  put_u32(bytes, static_cast<std::uint32_t>(values.size()));
  for (const double v : values) put_u16(bytes, static_cast<std::uint32_t>(std::lround(v * 65535)));
  return bytes;
}
inline IccBytes icc_parametric(int type, const std::vector<double>& parameters) {
  IccBytes bytes = tag_of_type("para");
  put_u16(bytes, static_cast<std::uint32_t>(type));
  put_u16(bytes, 0);
  for (const double v : parameters) put_fixed(bytes, v);
  return bytes;
}
inline IccBytes icc_description(const std::string& text) {
  IccBytes bytes = tag_of_type("desc");
  put_u32(bytes, static_cast<std::uint32_t>(text.size() + 1));
  bytes.insert(bytes.end(), text.begin(), text.end());
  bytes.resize(bytes.size() + 1 + 78);  // the end of the text, and its other scripts
  return bytes;
}

/// A display profile with these tags; `model` is "RGB ", "GRAY" or "CMYK".
inline IccBytes icc_profile(const std::string& model, const IccTags& tags) {
  IccBytes body, table;
  put_u32(table, static_cast<std::uint32_t>(tags.size()));
  const std::size_t start = 128 + 4 + 12 * tags.size();
  for (const auto& [name, bytes] : tags) {
    table.insert(table.end(), name.begin(), name.end());
    put_u32(table, static_cast<std::uint32_t>(start + body.size()));
    put_u32(table, static_cast<std::uint32_t>(bytes.size()));
    body.insert(body.end(), bytes.begin(), bytes.end());
    body.resize((body.size() + 3) / 4 * 4);
  }
  IccBytes profile;
  put_u32(profile, static_cast<std::uint32_t>(start + body.size()));
  put_u32(profile, 0);
  put_u32(profile, 0x02400000);
  for (const std::string& word : {std::string("mntr"), model, std::string("XYZ ")})
    profile.insert(profile.end(), word.begin(), word.end());
  profile.resize(36);
  for (const char c : std::string("acsp")) profile.push_back(static_cast<std::uint8_t>(c));
  profile.resize(68);
  for (const std::uint32_t v : {0xf6d6u, 0x10000u, 0xd32du}) put_u32(profile, v);  // D50
  profile.resize(128);
  profile.insert(profile.end(), table.begin(), table.end());
  profile.insert(profile.end(), body.begin(), body.end());
  return profile;
}

/// Tags of an RGB profile: primaries with their white, and one curve for all channels.
inline IccTags icc_rgb_tags(const Primaries& primaries, const IccBytes& curve,
                            const std::string& name) {
  const Affine m = then(rgb_to_xyz(primaries), adapt_white(primaries.white, kD50));
  const auto column = [&](std::size_t c) { return icc_xyz(m.m[0][c], m.m[1][c], m.m[2][c]); };
  return {{"desc", icc_description(name)},
          {"rXYZ", column(0)},
          {"gXYZ", column(1)},
          {"bXYZ", column(2)},
          {"rTRC", curve},
          {"gTRC", curve},
          {"bTRC", curve}};
}

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_SUPPORT_ICC_H_
