// A small copy of a picture, for figures.
#ifndef CHALCEDONY_CORE_PIXEL_THUMBNAIL_H_
#define CHALCEDONY_CORE_PIXEL_THUMBNAIL_H_

#include <cstdint>
#include <memory>
#include <mutex>
#include <vector>

#include "core/pixel/block.h"

namespace chalcedony {

/// 8-bit sRGB, interleaved, rows from the top.
struct Thumbnail {
  std::uint32_t width = 0;
  std::uint32_t height = 0;
  double pixels_per_cell = 1;  // picture pixels along each side of a thumbnail pixel
  std::vector<std::uint8_t> rgb;
};

/// Averages Blocks of sRGB over the cells of a thumbnail. Sums may be taken in any order: figures
/// are outside the promise of equal bytes. Copies add into the same cells, each by itself, so that
/// threads have one each and the cells are held once.
///
/// Cost      16 bytes a cell, and for each copy 16 bytes a column of the picture
class ThumbnailSums {
 public:
  /// The thumbnail is at most `most_width` x `most_height`, and never larger than the picture.
  ThumbnailSums(std::uint32_t width, std::uint32_t height, std::uint32_t most_width,
                std::uint32_t most_height);

  /// `srgb` in 0-255; transparent pixels are laid on white. Copies may add at once.
  void add(const Block& block, const ConstPlanes& srgb);
  /// Takes what another one, or a copy, has added; none may add meanwhile.
  void merge(const ThumbnailSums& other);
  Thumbnail thumbnail();

 private:
  std::size_t cell_row_of(std::uint32_t y) const;
  void add_to_columns(const Block& block, const ConstPlanes& srgb, std::size_t first, std::size_t n,
                      std::uint32_t x);
  /// What all copies add to.
  struct Cells {
    std::mutex mutex;
    std::vector<float> sums;  // r, g, b, weight
  };

  /// What is in the columns, added to the cells of their row.
  void add_columns_to(Cells& cells) const;
  void empty_columns();

  std::uint32_t cells_wide_, cells_high_;
  double pixels_per_cell_;
  std::vector<std::uint32_t> cell_of_column_;
  std::shared_ptr<Cells> cells_;
  // Of the row of cells that pixels are added to: pixels that lie above one another have no need to
  // wait for their neighbors in the cell. r, g, b and weight are planes.
  std::vector<float> columns_;
  std::size_t cell_row_ = 0;
  std::uint32_t first_column_, end_column_ = 0;  // those with something in them
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_THUMBNAIL_H_
