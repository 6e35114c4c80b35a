// Channel values back into stored samples: the way out of what BlockReader reads in.
#ifndef CHALCEDONY_CORE_PIXEL_BLOCK_WRITER_H_
#define CHALCEDONY_CORE_PIXEL_BLOCK_WRITER_H_

#include <array>
#include <cstddef>

#include "core/pixel/raster.h"
#include "core/planes.h"

namespace chalcedony {

/// Writes rows of one kind of picture. Safe from any thread.
class BlockWriter {
 public:
  /// `info` says how the samples are to be stored; alpha is written straight.
  explicit BlockWriter(const PictureInfo& info);

  /// Writes n pixels. A gray picture takes the first plane of `color`; `alpha` (0-1) is needed by a
  /// picture with alpha only, and null means opaque.
  ///
  /// Units     the contract's, of the picture's space; integers are rounded to the nearest code and
  ///           clipped to their range; NaN becomes 0
  /// Shape     planes padded as in planes.h, of at most kBlockPixels
  void write(const ConstPlanes& color, const float* alpha, std::size_t n, std::byte* stored) const;

  const PictureInfo& info() const { return info_; }

 private:
  PictureInfo info_;
  std::array<SampleScale, 3> scale_;
  PlaneBuffer opaque_;  // one plane of 1
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_BLOCK_WRITER_H_
