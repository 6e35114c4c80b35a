// PNGs that were changed after they were written.
#ifndef CHALCEDONY_TESTS_SUPPORT_PNG_CHUNKS_H_
#define CHALCEDONY_TESTS_SUPPORT_PNG_CHUNKS_H_

#include <zlib.h>

#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

namespace chalcedony::test {

inline std::uint32_t big_endian(const std::string& bytes, std::size_t at) {
  std::uint32_t value = 0;
  for (std::size_t i = 0; i < 4; ++i)
    value = value << 8 | static_cast<unsigned char>(bytes[at + i]);
  return value;
}

/// A PNG with the check sums that its chunks should have, so that a reader looks at what is in
/// them; anything else as it is.
inline std::string with_check_sums(std::string bytes) {
  constexpr std::string_view kPng{"\x89PNG\r\n\x1a\n"};
  constexpr std::size_t kAround = 12;  // length, type and check sum of a chunk
  if (!bytes.starts_with(kPng)) return bytes;
  for (std::size_t at = kPng.size(); at + kAround <= bytes.size();) {
    const std::size_t length = big_endian(bytes, at);
    if (length > bytes.size() - at - kAround) break;
    const auto* type = reinterpret_cast<const Bytef*>(bytes.data()) + at + 4;
    const auto sum = ::crc32(0, type, static_cast<uInt>(4 + length));
    for (std::size_t i = 0; i < 4; ++i)
      bytes[at + 8 + length + i] = static_cast<char>(sum >> (24 - 8 * i));
    at += kAround + length;
  }
  return bytes;
}

/// A PNG with chunks put behind its header: type and data of each.
inline std::string with_chunks(std::string bytes, const std::vector<std::string>& typed_data) {
  std::string added;
  const auto number = [](std::uint32_t value) {
    std::string four;
    for (int shift = 24; shift >= 0; shift -= 8) four += static_cast<char>(value >> shift & 255);
    return four;
  };
  for (const std::string& one : typed_data)
    added += number(static_cast<std::uint32_t>(one.size() - 4)) + one + number(0);
  constexpr std::size_t kBehindHeader = 8 + 25;
  return with_check_sums(bytes.insert(kBehindHeader, added));
}

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_SUPPORT_PNG_CHUNKS_H_
