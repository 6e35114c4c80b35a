// Where a class map is doubtful, by small squares of the picture.
#ifndef CHALCEDONY_CORE_LEARN_DOUBT_TILES_H_
#define CHALCEDONY_CORE_LEARN_DOUBT_TILES_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <limits>
#include <vector>

#include "core/learn/block_classifier.h"
#include "core/pixel/block.h"
#include "core/pixel/label.h"
#include "core/planes.h"

namespace chalcedony {

struct DoubtTile {
  std::uint32_t pixels = 0, doubtful = 0;                         // that count
  std::array<std::uint64_t, 3> srgb{};                            // sums of codes, 0-255
  std::uint64_t squares = 0;                                      // sum of the squares of all three
  Label middle = 0;                                               // the class of its middle pixel
  Label lowest = std::numeric_limits<Label>::max(), highest = 0;  // classes of its pixels

  bool has_one_class() const { return lowest == highest; }

  /// How far its pixels lie from their mean, squared, on average; in codes.
  double variance() const;
};

/// Squares of one size from the top left on; what is left at the right and the bottom belongs to
/// none. Whole numbers are summed, so that their order does not matter.
class DoubtTiles {
 public:
  /// Most squares a picture has: what is worked out of them does not grow with the picture.
  static constexpr std::size_t kMost = 2048;
  /// A pixel that no class takes, that is farther from all of them than 99 % of their samples, or
  /// that is in its class with less confidence than this, 0-1, is doubtful.
  static constexpr float kSure = 0.5f;

  DoubtTiles(std::uint32_t width, std::uint32_t height);

  std::uint32_t side() const { return side_; }
  std::uint32_t columns() const { return columns_; }
  const std::vector<DoubtTile>& tiles() const { return tiles_; }  // row by row
  /// Of all pixels that count.
  std::uint64_t doubtful() const { return doubtful_; }

  /// Adds the pixels of a Block that count. `srgb` in 0-255; of what is beyond, the nearest.
  ///
  /// Shape     three planes; the verdicts with their confidence
  void add(const Block& block, const Verdicts& verdicts, const ConstPlanes& srgb);
  /// Adds what another one of the same picture has.
  void merge(const DoubtTiles& other);

 private:
  std::uint32_t side_, columns_, rows_;
  std::uint64_t doubtful_ = 0;
  std::vector<DoubtTile> tiles_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_DOUBT_TILES_H_
