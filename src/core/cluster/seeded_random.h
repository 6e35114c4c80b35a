// Random numbers that are the same on every machine.
#ifndef CHALCEDONY_CORE_CLUSTER_SEEDED_RANDOM_H_
#define CHALCEDONY_CORE_CLUSTER_SEEDED_RANDOM_H_

#include <cstdint>

#include "core/pixel/pixel_hash.h"

namespace chalcedony {

/// Numbers drawn one after the other; each is the hash of the seed and its place.
class SeededRandom {
 public:
  explicit SeededRandom(std::uint64_t seed) : seed_(seed) {}

  /// Uniform over [0, 1).
  double next() { return static_cast<double>(pixel_hash(seed_, drawn_++) >> 11) * 0x1p-53; }

 private:
  std::uint64_t seed_;
  std::uint64_t drawn_ = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CLUSTER_SEEDED_RANDOM_H_
