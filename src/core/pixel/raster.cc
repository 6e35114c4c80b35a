#include "core/pixel/raster.h"

namespace chalcedony {

SampleScale sample_scale(const Space& space, std::size_t channel, SampleType sample,
                         double full_scale) {
  const ChannelInfo& info = space.channels[channel];
  if (space.is_rgb || info.unit == Unit::kOf255) return {255.0 / full_scale, 0};
  if (sample == SampleType::kF32) return {1, 0};
  return {(info.high - info.low) / full_scale, info.low};
}

}  // namespace chalcedony
