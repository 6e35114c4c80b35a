// A histogram of all three channels of a space together.
#ifndef CHALCEDONY_CORE_STATS_CUBE_H_
#define CHALCEDONY_CORE_STATS_CUBE_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/color/space.h"
#include "core/pixel/block.h"

namespace chalcedony {

/// Counts in n x n x n equal bins over the usual ranges of the channels. A value past an end is
/// counted in the bin at that end, so that cubes of different pictures have the same bins and hold
/// all their pixels but those without hue.
class CubeHistogram {
 public:
  /// Range     1 <= n <= 64; a space of three channels
  CubeHistogram(const Space& space, std::size_t n);

  /// `channels` of the space, in its units.
  void add(const Block& block, const ConstPlanes& channels);
  void merge(const CubeHistogram& other);

  const Space& space() const { return *space_; }
  std::size_t side() const { return n_; }
  /// The third channel runs fastest.
  const std::vector<std::uint64_t>& counts() const { return counts_; }
  std::uint64_t no_hue() const { return no_hue_; }
  std::uint64_t total() const;

 private:
  const Space* space_;
  std::size_t n_;
  std::array<float, 3> low_{}, per_unit_{};
  std::vector<std::uint64_t> counts_;
  std::uint64_t no_hue_ = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_STATS_CUBE_H_
