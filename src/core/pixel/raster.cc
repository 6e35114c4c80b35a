#include "core/pixel/raster.h"

#include <algorithm>

namespace chalcedony {

SampleScale sample_scale(const Space& space, std::size_t channel, SampleType sample,
                         double full_scale) {
  return sample_scale(space.channels[channel], sample, full_scale);
}

SampleScale sample_scale(const ChannelInfo& channel, SampleType sample, double full_scale) {
  if (channel.unit == Unit::kOf255) return {255.0 / full_scale, 0};
  if (sample == SampleType::kF32) return {1, 0};
  return {(channel.high - channel.low) / full_scale, channel.low};
}

std::array<SampleScale, 3> sample_scales(const PictureInfo& info) {
  std::array<SampleScale, 3> scales;
  for (std::size_t c = 0; c < 3; ++c)
    scales[c] = sample_scale(*info.space, std::min<std::size_t>(c, info.space->channel_count - 1),
                             info.shape.sample, info.full_scale);
  return scales;
}

}  // namespace chalcedony
