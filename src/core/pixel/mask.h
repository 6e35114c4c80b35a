// A selection of pixels of one picture, a bit each.
#ifndef CHALCEDONY_CORE_PIXEL_MASK_H_
#define CHALCEDONY_CORE_PIXEL_MASK_H_

#include <cstdint>
#include <vector>

namespace chalcedony {

class Mask {
 public:
  Mask(std::uint32_t width, std::uint32_t height)
      : width_(width), height_(height), bits_((std::uint64_t{width} * height + 63) / 64) {}

  std::uint32_t width() const { return width_; }
  std::uint32_t height() const { return height_; }

  /// Pixels are numbered row by row from the top left.
  bool at(std::uint64_t pixel) const { return bits_[pixel / 64] >> (pixel % 64) & 1; }
  void set(std::uint64_t pixel) { bits_[pixel / 64] |= std::uint64_t{1} << (pixel % 64); }

 private:
  std::uint32_t width_;
  std::uint32_t height_;
  std::vector<std::uint64_t> bits_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_MASK_H_
