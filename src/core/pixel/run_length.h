// How many samples from here on are the same.
#ifndef CHALCEDONY_CORE_PIXEL_RUN_LENGTH_H_
#define CHALCEDONY_CORE_PIXEL_RUN_LENGTH_H_

#include <bit>
#include <cstddef>
#include <cstdint>
#include <cstring>

namespace chalcedony {

/// The number of samples equal to the first of n, itself included. Eight bytes are compared at
/// once.
///
/// Range     n >= 1; Sample is an unsigned integer of 8 or 16 bits
template <class Sample>
std::size_t run_length(const Sample* samples, std::size_t n) {
  static_assert(std::endian::native == std::endian::little);
  constexpr std::size_t kAtOnce = 8 / sizeof(Sample);
  constexpr std::uint64_t kOnes =
      sizeof(Sample) == 1 ? 0x0101010101010101ull : 0x0001000100010001ull;
  const std::uint64_t repeated = samples[0] * kOnes;
  std::size_t i = 0;
  for (; i + kAtOnce <= n; i += kAtOnce) {
    std::uint64_t next = 0;
    std::memcpy(&next, samples + i, 8);
    if (next != repeated)
      return i + static_cast<std::size_t>(std::countr_zero(next ^ repeated)) / (8 * sizeof(Sample));
  }
  while (i < n && samples[i] == samples[0]) ++i;
  return i;
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_RUN_LENGTH_H_
