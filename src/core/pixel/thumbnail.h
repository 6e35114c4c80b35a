// A small copy of a picture, for figures.
#ifndef CHALCEDONY_CORE_PIXEL_THUMBNAIL_H_
#define CHALCEDONY_CORE_PIXEL_THUMBNAIL_H_

#include <cstdint>
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
/// are outside the promise of equal bytes.
class ThumbnailSums {
 public:
  /// The thumbnail is at most `most_width` x `most_height`, and never larger than the picture.
  ThumbnailSums(std::uint32_t width, std::uint32_t height, std::uint32_t most_width,
                std::uint32_t most_height);

  /// `srgb` in 0-255; transparent pixels are laid on white.
  void add(const Block& block, const ConstPlanes& srgb);
  void merge(const ThumbnailSums& other);
  Thumbnail thumbnail() const;

 private:
  std::uint32_t cells_wide_, cells_high_;
  double pixels_per_cell_;
  std::vector<std::uint32_t> cell_of_column_;
  std::vector<float> sums_;  // r, g, b, weight
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_THUMBNAIL_H_
