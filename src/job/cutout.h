// What a cut-out shows: the selected pixels, and something else where none are.
#ifndef CHALCEDONY_JOB_CUTOUT_H_
#define CHALCEDONY_JOB_CUTOUT_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <filesystem>

#include "core/color/css_color.h"
#include "core/pixel/block.h"
#include "core/pixel/planes.h"
#include "io/picture_writer.h"

namespace chalcedony {

/// What a cut-out shows where nothing is selected.
enum class CutoutRest { kTransparent, kGray, kDimmed, kColor, kPicture };

struct CutoutOptions {
  CutoutRest rest = CutoutRest::kTransparent;
  Color color = {};                    // of kColor
  std::filesystem::path picture = {};  // of kPicture; of the size of every input
};

/// sRGB with alpha, as deep as the picture.
PictureSpec cutout_spec(const RasterShape& shape);

/// Writes selected pixels with their own opacity, the others as the options say: transparent, or
/// opaque in gray, dimmed, in a color or from another picture.
class CutoutMaker {
 public:
  CutoutMaker(const PictureSpec& spec, const CutoutOptions& options);

  /// Makes the stored rows of a Block from its sRGB; `selected`: 1 or 0 a pixel. `ground` is the
  /// other picture's sRGB where there is one.
  void write(const Block& block, const ConstPlanes& srgb, const ConstPlanes& ground,
             const std::uint8_t* selected, std::byte* stored);

  /// What was written last, over white, for a figure.
  const Block& on_white(const Block& block);
  ConstPlanes color() { return read_only(planes_.planes()); }

 private:
  /// All pixels as they are where nothing is selected.
  void fill_rest(const ConstPlanes& srgb, std::size_t n);

  PictureSpec spec_;
  CutoutRest rest_;
  std::array<float, 3> color_{};  // of kColor; 0 for kTransparent
  PlaneBuffer planes_;
  Block shown_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_CUTOUT_H_
