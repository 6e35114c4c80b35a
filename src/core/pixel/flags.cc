#include "core/pixel/flags.h"

#include <algorithm>

namespace chalcedony {

std::uint32_t count_flags(const std::uint8_t* flags, std::size_t n) {
  std::uint32_t count = 0;
  for (std::size_t i = 0; i < n; ++i) count += flags[i];
  return count;
}

std::uint32_t count_flags(const Block& block, const std::uint8_t* flags) {
  if (!block.counted) return count_flags(flags, block.size);
  std::uint32_t count = 0;
  for (std::size_t i = 0; i < block.size; ++i)
    count += std::uint32_t{flags[i]} & std::uint32_t{block.counted[i]};
  return count;
}

void turn_flags(std::uint8_t* flags, std::size_t n) {
  for (std::size_t i = 0; i < n; ++i) flags[i] ^= 1;
}

void copy_counted(const Block& block, std::uint8_t* flags) {
  if (block.counted) {
    std::copy_n(block.counted, block.size, flags);
  } else {
    std::fill_n(flags, block.size, std::uint8_t{1});
  }
}

void store_flags(const std::uint8_t* flags, std::size_t n, std::byte* __restrict stored) {
  for (std::size_t i = 0; i < n; ++i) stored[i] = static_cast<std::byte>(-flags[i]);
}

void flags_as_gray(const std::uint8_t* flags, std::size_t n, float* __restrict plane) {
  for (std::size_t i = 0; i < n; ++i) plane[i] = 255.0f * static_cast<float>(flags[i]);
}

}  // namespace chalcedony
