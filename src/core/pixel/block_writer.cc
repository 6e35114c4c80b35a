#include "core/pixel/block_writer.h"

#include <algorithm>

#include "core/pixel/interleave.h"

namespace chalcedony {

BlockWriter::BlockWriter(const PictureInfo& info)
    : info_(info), scale_(sample_scales(info)), opaque_(1) {
  std::fill_n(opaque_.plane(0), kBlockPixels, 1.0f);
}

void BlockWriter::write(const ConstPlanes& color, const float* alpha, std::size_t n,
                        std::byte* stored) const {
  const RasterShape& shape = info_.shape;
  if (info_.color_channels() == 1) {
    write_plane(color[0], n, shape.channels, shape.sample, 0, scale_[0], stored);
  } else {
    write_planes(color, n, shape.channels, shape.sample, scale_, stored);
  }
  if (info_.alpha == AlphaKind::kNone) return;
  write_plane(alpha ? alpha : opaque_.plane(0), n, shape.channels, shape.sample, shape.channels - 1,
              SampleScale{1.0 / info_.full_scale, 0}, stored);
}

}  // namespace chalcedony
