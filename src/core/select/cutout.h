// A cut-out of what is selected: the selected pixels, and something else where none are.
#ifndef CHALCEDONY_CORE_SELECT_CUTOUT_H_
#define CHALCEDONY_CORE_SELECT_CUTOUT_H_

#include <array>
#include <cstddef>
#include <cstdint>

#include "core/color/css_color.h"
#include "core/pixel/block.h"
#include "core/pixel/raster.h"
#include "core/planes.h"

namespace chalcedony {

/// What a cut-out shows where nothing is selected.
enum class CutoutRest { kTransparent, kGray, kDimmed, kColor, kPicture };

/// Writes selected pixels with their own opacity, the others as the rest says: transparent, or
/// opaque in gray, dimmed, in a color or from another picture. One for each thread.
class CutoutMaker {
 public:
  /// Makes sRGB with alpha of these samples. `color`: of kColor.
  CutoutMaker(SampleType sample, CutoutRest rest, const Color& color);

  /// Makes the stored rows of a Block from its sRGB in 0-255. `selected`: flags (flags.h).
  /// `ground`: of kPicture, the other picture's sRGB.
  ///
  /// Shape     planes padded as in planes.h; `stored` takes 4 samples a pixel
  /// Source    the gray is the luma of ITU-R BT.709
  void write(const Block& block, const ConstPlanes& srgb, const ConstPlanes& ground,
             const std::uint8_t* selected, std::byte* stored);

  /// What was written last, over white, for a figure.
  const Block& on_white(const Block& block);
  ConstPlanes color() { return read_only(planes_.planes()); }

 private:
  /// All pixels as they are where nothing is selected.
  void fill_rest(const ConstPlanes& srgb, std::size_t n);

  SampleType sample_;
  CutoutRest rest_;
  std::array<float, 3> color_{};  // of kColor; 0 for kTransparent
  PlaneBuffer planes_;
  Block shown_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_SELECT_CUTOUT_H_
