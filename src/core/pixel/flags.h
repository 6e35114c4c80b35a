// Flags of pixels: a byte each, 1 for yes and 0 for no.
#ifndef CHALCEDONY_CORE_PIXEL_FLAGS_H_
#define CHALCEDONY_CORE_PIXEL_FLAGS_H_

#include <cstddef>
#include <cstdint>

#include "core/pixel/block.h"

namespace chalcedony {

/// How many of n flags say yes; n is below 2^32.
std::uint32_t count_flags(const std::uint8_t* flags, std::size_t n);
/// How many of a Block's pixels count and have a flag that says yes.
std::uint32_t count_flags(const Block& block, const std::uint8_t* flags);

/// Makes no of yes, and yes of no.
void turn_flags(std::uint8_t* flags, std::size_t n);
/// Whether each pixel of a Block counts.
void copy_counted(const Block& block, std::uint8_t* flags);

/// Writes n flags as the bytes 0 and 255.
void store_flags(const std::uint8_t* flags, std::size_t n, std::byte* stored);
/// Writes n flags as values of a plane: 0 and 255.
void flags_as_gray(const std::uint8_t* flags, std::size_t n, float* plane);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_FLAGS_H_
