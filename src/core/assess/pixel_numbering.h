// Numbers for the pixels of several pictures: one picture after the other, each in raster order.
#ifndef CHALCEDONY_CORE_ASSESS_PIXEL_NUMBERING_H_
#define CHALCEDONY_CORE_ASSESS_PIXEL_NUMBERING_H_

#include <algorithm>
#include <cstddef>
#include <cstdint>
#include <vector>

namespace chalcedony {

class PixelNumbering {
 public:
  struct Place {
    std::size_t picture = 0;
    std::uint32_t x = 0, y = 0;
  };

  /// The next picture.
  void add(std::uint32_t width, std::uint32_t height) {
    widths_.push_back(width);
    firsts_.push_back(firsts_.back() + std::uint64_t{width} * height);
  }

  /// The number of a picture's first pixel.
  std::uint64_t first_of(std::size_t picture) const { return firsts_[picture]; }

  /// Range     number < the pixels of all pictures
  Place place_of(std::uint64_t number) const {
    const auto next = std::upper_bound(firsts_.begin(), firsts_.end(), number);
    const auto picture = static_cast<std::size_t>(next - firsts_.begin()) - 1;
    const std::uint64_t pixel = number - firsts_[picture];
    return {picture, static_cast<std::uint32_t>(pixel % widths_[picture]),
            static_cast<std::uint32_t>(pixel / widths_[picture])};
  }

 private:
  std::vector<std::uint32_t> widths_;
  std::vector<std::uint64_t> firsts_{0};  // and one behind the last
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_ASSESS_PIXEL_NUMBERING_H_
