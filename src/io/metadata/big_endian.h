// Numbers and text put behind bytes in the order that PNG, ICC profiles and Exif data use.
#ifndef CHALCEDONY_IO_METADATA_BIG_ENDIAN_H_
#define CHALCEDONY_IO_METADATA_BIG_ENDIAN_H_

#include <cstddef>
#include <cstdint>
#include <string_view>
#include <vector>

namespace chalcedony {

/// Appends the low `size` bytes of a number, 1 to 4, the highest first.
inline void append_number(std::vector<std::byte>& bytes, std::uint32_t value, int size) {
  for (int shift = 8 * (size - 1); shift >= 0; shift -= 8)
    bytes.push_back(static_cast<std::byte>(value >> shift & 255));
}

/// Appends text as it stands, without an end.
inline void append_text(std::vector<std::byte>& bytes, std::string_view text) {
  for (const char c : text) bytes.push_back(static_cast<std::byte>(c));
}

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_METADATA_BIG_ENDIAN_H_
