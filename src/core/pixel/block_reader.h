// Cuts bands into Blocks: stored samples become channel values, and pixels that do not count are
// marked.
#ifndef CHALCEDONY_CORE_PIXEL_BLOCK_READER_H_
#define CHALCEDONY_CORE_PIXEL_BLOCK_READER_H_

#include <algorithm>
#include <cstdint>
#include <utility>
#include <vector>

#include "core/pixel/band.h"
#include "core/pixel/block.h"
#include "core/pixel/counting.h"
#include "core/pixel/raster.h"

namespace chalcedony {

/// One for each thread; its memory holds one Block at a time.
class BlockReader {
 public:
  /// `wants_color`: Blocks without have no `color`, for who looks at stored samples alone, or at
  /// what counts.
  BlockReader(const PictureInfo& info, Counting counting, bool wants_color = true);

  /// Calls `use(const Block&)` for the Blocks of the band's own rows, in raster order.
  template <class Use>
  void for_each_block(const Band& band, Use&& use) {
    const std::uint64_t first = std::uint64_t{band.first_row()} * info_.shape.width;
    const std::uint64_t end = first + std::uint64_t{band.rows()} * info_.shape.width;
    block_.band = &band;
    for (std::uint64_t at = first; at < end; at += kBlockPixels) {
      const std::size_t size =
          static_cast<std::size_t>(std::min<std::uint64_t>(kBlockPixels, end - at));
      use(read(band.own_rows() + (at - first) * info_.shape.pixel_bytes(), at, size));
    }
  }

  /// Calls `use(const Block&, x)` for the Blocks of row y, whose first pixel is at `row`, with the
  /// column each begins at.
  template <class Use>
  void for_each_block_of_row(const std::byte* row, std::uint32_t y, Use&& use) {
    block_.band = nullptr;
    read_row(row, y, use);
  }

  /// The same for row y of a band's own rows.
  template <class Use>
  void for_each_block_of_row(const Band& band, std::uint32_t y, Use&& use) {
    block_.band = &band;
    read_row(band.row(y), y, use);
  }

  /// The Block of `size` stored pixels that begin with pixel number `first_pixel`.
  const Block& read(const std::byte* stored, std::uint64_t first_pixel, std::size_t size);

  /// What was left out so far.
  const Excluded& excluded() const { return excluded_; }
  Excluded take_excluded() { return std::exchange(excluded_, {}); }

 private:
  template <class Use>
  void read_row(const std::byte* row, std::uint32_t y, Use& use) {
    const std::uint32_t width = info_.shape.width;
    for (std::uint32_t x = 0; x < width; x += kBlockPixels)
      use(read(row + x * info_.shape.pixel_bytes(), std::uint64_t{y} * width + x,
               std::min<std::size_t>(kBlockPixels, width - x)),
          x);
  }

  void read_color();
  void read_alpha();
  void undo_premultiplication();
  bool is_finite(std::size_t i) const;
  void mark_counted();
  bool all_count() const;

  PictureInfo info_;
  Counting counting_;
  bool reads_color_;
  std::array<SampleScale, 3> scale_;
  PlaneBuffer planes_;
  std::vector<std::uint8_t> counted_;
  Block block_;
  Excluded excluded_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_BLOCK_READER_H_
