// The plane of a channel on its way into a thumbnail.
#ifndef CHALCEDONY_CORE_PALETTE_PLANE_CODER_H_
#define CHALCEDONY_CORE_PALETTE_PLANE_CODER_H_

#include <cstddef>
#include <cstdint>

#include "core/planes.h"

namespace chalcedony {

/// The values of a plane that are shown black and white.
struct PlaneRange {
  double low = 0, high = 255;
};

/// Codes a plane as three of 0-255, which a thumbnail averages: two for the value and one that is 0
/// where a pixel counts, while what does not count is laid on white. A hue goes as its cosine and
/// sine, so that the mean of several lies between them on the circle.
class PlaneCoder {
 public:
  /// `hue`: whether the values are degrees, of which those that are not a number have no hue.
  PlaneCoder(bool hue, const PlaneRange& range) : hue_(hue), range_(range) {}

  /// Of n values; hold until `out` is written again.
  ///
  /// Shape     `values` padded as in planes.h, and so is `out`
  ConstPlanes code(const float* values, std::size_t n, const Planes& out) const;

  /// Whether a thumbnail's pixel stands mostly for pixels that do not count.
  static bool is_blank(const std::uint8_t* rgb) { return rgb[2] >= 128; }

  /// The share of the way from low to high that a thumbnail's pixel stands for; NaN for no hue.
  double share(const std::uint8_t* rgb) const;

 private:
  bool hue_;
  PlaneRange range_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PALETTE_PLANE_CODER_H_
