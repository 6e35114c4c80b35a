// Bytes looked at eight at a time.
#ifndef CHALCEDONY_CORE_PIXEL_BYTE_WORD_H_
#define CHALCEDONY_CORE_PIXEL_BYTE_WORD_H_

#include <cstddef>
#include <cstdint>
#include <cstring>

namespace chalcedony {

/// Bytes of a word.
inline constexpr std::size_t kWordBytes = sizeof(std::uint64_t);

/// The word that begins at a byte, wherever that lies.
inline std::uint64_t word_at(const std::uint8_t* bytes) {
  std::uint64_t word;
  std::memcpy(&word, bytes, kWordBytes);
  return word;
}

/// The same byte eight times.
inline std::uint64_t word_of(std::uint8_t byte) { return byte * 0x0101010101010101ull; }

/// The top bit of every byte that is not 0.
inline std::uint64_t used_bytes(std::uint64_t word) {
  constexpr std::uint64_t kLow = 0x7f7f7f7f7f7f7f7f;
  return (((word & kLow) + kLow) | word) & ~kLow;
}

/// How many bytes used_bytes() found.
inline std::size_t count_top_bits(std::uint64_t used) {
  return static_cast<std::size_t>(word_of(1) * (used >> 7) >> 56);
}

/// Whether some byte is 0.
inline bool has_zero(std::uint64_t word) { return used_bytes(word) != 0x8080808080808080; }

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_BYTE_WORD_H_
