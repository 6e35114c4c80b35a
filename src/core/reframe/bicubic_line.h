// New pixels along a line through a picture, interpolated between the old ones.
#ifndef CHALCEDONY_CORE_REFRAME_BICUBIC_LINE_H_
#define CHALCEDONY_CORE_REFRAME_BICUBIC_LINE_H_

#include <algorithm>
#include <cstddef>
#include <type_traits>

#include "core/pixel/raster.h"

namespace chalcedony {

/// A value as a sample: where samples are integers clipped to 0 to `most` and rounded.
template <class Sample>
Sample sample_of(float value, float most) {
  if constexpr (std::is_floating_point_v<Sample>) {
    return value;
  } else {
    return static_cast<Sample>(std::clamp(value, 0.0f, most) + 0.5f);
  }
}

/// Places in a line of a picture, evenly spaced in the plane of what is seen there: with w as it is
/// that plane is the picture's, else it is seen at a slant, and all is divided by w. In x and y
/// whole numbers are the centers of pixels, 0 that of the first.
struct PictureLine {
  double x = 0, y = 0;            // the first place
  double step_x = 0, step_y = 0;  // to the next
  double w = 1, step_w = 0;

  // Whoever asks for a place gets the same bits, so that what was found inside is inside.
  double x_of(std::size_t i) const { return along(i, x, step_x) / along(i, w, step_w); }
  double y_of(std::size_t i) const { return along(i, y, step_y) / along(i, w, step_w); }

 private:
  static double along(std::size_t i, double first, double step) {
    return first + static_cast<double>(i) * step;
  }
};

/// Vectors reach so many samples past what they need.
inline constexpr std::size_t kSamplesAfterPicture = 4;

/// Writes the color channels (one or three) of n new pixels, which lie at a line's places from
/// `first` on, each from the sixteen old ones around it; as sample_of().
///
/// Shape     `old`: the whole picture, of one channel or three, and kSamplesAfterPicture more; the
///           sixteen pixels of every place lie inside. `out`: pixels of `out_channels` samples of
///           the same kind
/// Source    Keys (1981), Cubic convolution interpolation for digital image processing, a = -1/2
void bicubic_line(const std::byte* old, const RasterShape& shape, const PictureLine& line,
                  std::size_t first, std::size_t n, float most, std::size_t out_channels,
                  std::byte* out);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_REFRAME_BICUBIC_LINE_H_
