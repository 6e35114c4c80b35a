// PNGs that were changed after they were written.
#ifndef CHALCEDONY_TESTS_SUPPORT_PNG_CHECK_SUMS_H_
#define CHALCEDONY_TESTS_SUPPORT_PNG_CHECK_SUMS_H_

#include <zlib.h>

#include <cstdint>
#include <string>
#include <string_view>

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

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_SUPPORT_PNG_CHECK_SUMS_H_
