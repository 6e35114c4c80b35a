// Samples of 1, 2 or 4 bits, several in a byte, as PNG and TIFF store them.
#ifndef CHALCEDONY_IO_PICTURE_PACKED_SAMPLES_H_
#define CHALCEDONY_IO_PICTURE_PACKED_SAMPLES_H_

#include <cstddef>

namespace chalcedony {

/// Writes n samples of a row as a byte each, times `step`. The first one is in the high bits of the
/// first byte.
///
/// Source    PNG, third edition, 7.2; TIFF 6.0, section 4
inline void unpack_samples(const std::byte* packed, unsigned bits, std::size_t n, unsigned step,
                           std::byte* samples) {
  const unsigned per_byte = 8 / bits, mask = (1u << bits) - 1;
  for (std::size_t i = 0; i < n; ++i) {
    const unsigned shift = 8 - bits * (static_cast<unsigned>(i % per_byte) + 1);
    const unsigned sample = std::to_integer<unsigned>(packed[i / per_byte]) >> shift & mask;
    samples[i] = static_cast<std::byte>(sample * step);
  }
}

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_PICTURE_PACKED_SAMPLES_H_
