// Rectangular regions: `x,y,w,h` in pixels, or `percent:x,y,w,h`.
#ifndef CHALCEDONY_CORE_PIXEL_REGION_H_
#define CHALCEDONY_CORE_PIXEL_REGION_H_

#include <array>
#include <cstdint>
#include <string>
#include <string_view>

namespace chalcedony {

/// A rectangle of whole pixels.
struct PixelRect {
  std::uint32_t x = 0;
  std::uint32_t y = 0;
  std::uint32_t width = 0;
  std::uint32_t height = 0;

  bool contains(std::uint32_t px, std::uint32_t py) const {
    return px >= x && px - x < width && py >= y && py - y < height;
  }
};

/// A region as the user wrote it, before the picture's size is known.
struct Region {
  std::array<double, 4> x_y_w_h{};
  bool percent = false;
  std::string text;

  /// The pixels whose centers lie inside; a center on an edge belongs to what is right or below.
  ///
  /// Errors    InputError when the region reaches outside the picture or holds no pixel center
  PixelRect in(std::uint32_t width, std::uint32_t height) const;
};

/// Reads a region.
///
/// Errors    UsageError when it is not four numbers, or has no extent
/// Source    the notation of W3C Media Fragments URI 1.0, section 4.2.2
Region parse_region(std::string_view text);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_REGION_H_
