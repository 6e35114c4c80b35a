#include "io/metadata/icc_profile.h"

#include <cstdint>
#include <map>
#include <string>
#include <string_view>

#include "core/error.h"

namespace chalcedony {
namespace {

[[noreturn]] void reject_profile(const std::string& why) {
  throw InputError(why, "say the space with --assume");
}

/// Big-endian numbers of a profile; reading past its end is damage.
class ProfileBytes {
 public:
  explicit ProfileBytes(std::span<const std::byte> bytes) : bytes_(bytes) {}

  std::size_t size() const { return bytes_.size(); }
  ProfileBytes part(std::size_t offset, std::size_t size) const {
    if (offset > bytes_.size() || size > bytes_.size() - offset) reject_profile("is damaged");
    return ProfileBytes(bytes_.subspan(offset, size));
  }
  std::uint32_t u32(std::size_t at) const { return number(at, 4); }
  std::uint32_t u16(std::size_t at) const { return number(at, 2); }
  double fixed16(std::size_t at) const { return static_cast<std::int32_t>(u32(at)) / 65536.0; }
  std::string text(std::size_t at, std::size_t length) const {
    const ProfileBytes some = part(at, length);
    return std::string(reinterpret_cast<const char*>(some.bytes_.data()), length);
  }

 private:
  std::uint32_t number(std::size_t at, std::size_t length) const {
    const ProfileBytes some = part(at, length);
    std::uint32_t value = 0;
    for (const std::byte b : some.bytes_) value = value << 8 | std::to_integer<std::uint32_t>(b);
    return value;
  }

  std::span<const std::byte> bytes_;
};

constexpr std::size_t kHeader = 128, kTagEntry = 12;

using TagsByName = std::map<std::string, ProfileBytes>;

TagsByName tags_of(const ProfileBytes& profile) {
  TagsByName tags;
  const std::uint32_t count = profile.u32(kHeader);
  if (count > profile.size() / kTagEntry) reject_profile("is damaged");
  for (std::uint32_t i = 0; i < count; ++i) {
    const std::size_t entry = kHeader + 4 + kTagEntry * i;
    tags.emplace(profile.text(entry, 4),
                 profile.part(profile.u32(entry + 4), profile.u32(entry + 8)));
  }
  return tags;
}

const ProfileBytes& tag(const TagsByName& tags, const std::string& name) {
  const auto found = tags.find(name);
  if (found == tags.end()) reject_profile("has no " + name + " tag");
  return found->second;
}

ProfileCurve parametric(const ProfileBytes& tag) {
  // How many parameters each type has, in the order g a b c d e f.
  constexpr std::array<std::size_t, 5> kCounts{1, 3, 4, 5, 7};
  const std::uint32_t type = tag.u16(8);
  if (type >= kCounts.size()) reject_profile("has a curve of an unknown type");
  std::array<double, 7> p{};
  for (std::size_t i = 0; i < kCounts[type]; ++i) p[i] = tag.fixed16(12 + 4 * i);
  ProfileCurve curve;
  curve.g = p[0];
  if (type == 0) return curve;
  curve.a = p[1];
  curve.b = p[2];
  if (type == 1 || type == 2) {
    // Below -b / a the curve is flat.
    curve.d = -curve.b / curve.a;
    curve.e = curve.f = type == 2 ? p[3] : 0;
    return curve;
  }
  curve.c = p[3];
  curve.d = p[4];
  curve.e = p[5];
  curve.f = p[6];
  return curve;
}

ProfileCurve curve_of(const ProfileBytes& tag) {
  const std::string type = tag.text(0, 4);
  if (type == "para") return parametric(tag);
  if (type != "curv") reject_profile("has a curve of an unknown type");
  ProfileCurve curve;
  const std::uint32_t count = tag.u32(8);
  if (count == 0) return curve;
  if (count == 1) {
    curve.g = tag.u16(12) / 256.0;
    return curve;
  }
  for (std::uint32_t i = 0; i < count; ++i)
    curve.table.push_back(tag.u16(12 + 2 * std::size_t{i}) / 65535.0);
  return curve;
}

std::array<double, 3> xyz_in(const ProfileBytes& tag) {
  return {tag.fixed16(8), tag.fixed16(12), tag.fixed16(16)};
}

/// The first description, in plain letters.
std::string description_of(const TagsByName& tags) {
  const auto found = tags.find("desc");
  if (found == tags.end()) return "";
  const ProfileBytes& tag = found->second;
  std::string text;
  if (tag.text(0, 4) == "desc") {
    text = tag.text(12, tag.u32(8));
  } else if (tag.text(0, 4) == "mluc" && tag.u32(8) > 0) {
    const std::string wide = tag.text(tag.u32(24), tag.u32(20));
    for (std::size_t i = 1; i < wide.size(); i += 2) text += wide[i - 1] == 0 ? wide[i] : '?';
  }
  text = text.substr(0, text.find('\0'));
  for (char& c : text)
    if (c < ' ' || c > '~') c = '?';
  return text;
}

}  // namespace

RgbProfile parse_icc(std::span<const std::byte> bytes) {
  const ProfileBytes profile(bytes);
  if (profile.size() < kHeader + 4 || profile.text(36, 4) != "acsp") reject_profile("is damaged");
  const std::string model = profile.text(16, 4);
  const TagsByName tags = tags_of(profile);
  RgbProfile out;
  out.name = description_of(tags);
  out.gray = model == "GRAY";
  if (out.gray) {
    out.curves.fill(curve_of(tag(tags, "kTRC")));
    return out;
  }
  if (model != "RGB ") reject_profile("is not of r g b or gray");
  if (tags.contains("A2B0") && !tags.contains("rXYZ")) reject_profile("works by look-up tables");
  constexpr std::array<std::string_view, 3> kPrimaries{"r", "g", "b"};
  for (std::size_t c = 0; c < 3; ++c) {
    out.curves[c] = curve_of(tag(tags, std::string(kPrimaries[c]) + "TRC"));
    const auto column = xyz_in(tag(tags, std::string(kPrimaries[c]) + "XYZ"));
    for (std::size_t row = 0; row < 3; ++row) out.to_xyz_d50.m[row][c] = column[row];
  }
  return out;
}

}  // namespace chalcedony
