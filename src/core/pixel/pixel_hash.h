// A number for each pixel that looks drawn at random and depends on nothing but the seed and the
// place: draws made with it need no order and are the same for any number of threads.
#ifndef CHALCEDONY_CORE_PIXEL_PIXEL_HASH_H_
#define CHALCEDONY_CORE_PIXEL_PIXEL_HASH_H_

#include <cstdint>

namespace chalcedony {

/// All bits of the result depend on all bits of x; neighbors are unrelated.
///
/// Source    SplitMix64 (Steele, Lea and Flood 2014)
constexpr std::uint64_t mixed_bits(std::uint64_t x) {
  x += 0x9e3779b97f4a7c15ull;
  x = (x ^ (x >> 30)) * 0xbf58476d1ce4e5b9ull;
  x = (x ^ (x >> 27)) * 0x94d049bb133111ebull;
  return x ^ (x >> 31);
}

/// The number of a pixel, uniform over 64 bits.
constexpr std::uint64_t pixel_hash(std::uint64_t seed, std::uint64_t pixel) {
  return mixed_bits(mixed_bits(seed) ^ pixel);
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_PIXEL_HASH_H_
