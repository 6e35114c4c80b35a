// Where a byte stands among others.
#ifndef CHALCEDONY_CORE_PIXEL_BYTE_PLACES_H_
#define CHALCEDONY_CORE_PIXEL_BYTE_PLACES_H_

#include <algorithm>
#include <cstddef>
#include <cstdint>

#include "core/pixel/byte_word.h"

namespace chalcedony {

/// Writes the places of a byte among n into `places`, in order, which has room for n. Returns how
/// many there are. Quick where there are few, or many side by side.
inline std::size_t list_places(const std::uint8_t* bytes, std::size_t n, std::uint8_t byte,
                               std::uint32_t* places) {
  const std::uint64_t word = word_of(byte);
  std::size_t size = 0;
  for (std::size_t first = 0; first < n; first += kWordBytes) {
    const std::size_t last = std::min(n, first + kWordBytes);
    if (last == first + kWordBytes && !has_zero(word_at(bytes + first) ^ word)) continue;
    // Without branches: which one it is cannot be guessed.
    for (std::size_t i = first; i < last; ++i) {
      places[size] = static_cast<std::uint32_t>(i);
      size += bytes[i] == byte ? 1 : 0;
    }
  }
  return size;
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_BYTE_PLACES_H_
