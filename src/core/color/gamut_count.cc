#include "core/color/gamut_count.h"

#include <algorithm>

namespace chalcedony {
namespace {

/// Whether some value is surely or nearly outside of the range, by a test that is done for several
/// pixels at once.
bool may_leave(const float* values, std::size_t n, const ChannelInfo& range) {
  const float low = static_cast<float>(range.low), high = static_cast<float>(range.high);
  std::uint32_t outside = 0;
  for (std::size_t i = 0; i < n; ++i) outside |= (values[i] > high) | (values[i] < low);
  return outside != 0;
}

}  // namespace

void GamutCount::add(const Block& block, const ConstPlanes& color, const PictureInfo& stored) {
  if (stored.is_float() && !stored.space->is_rgb) return;
  const std::size_t planes = stored.color_channels() == 1 ? 1 : stored.space->channel_count;
  bool some_leave = false;
  for (std::size_t c = 0; c < planes; ++c)
    some_leave = some_leave || may_leave(color[c], block.size, stored.space->channels[c]);
  if (!some_leave) return;
  for (std::size_t i = 0; i < block.size; ++i) {
    float excess = 0;
    for (std::size_t c = 0; c < planes; ++c) {
      const ChannelInfo& range = stored.space->channels[c];
      const float v = color[c][i];
      const float over =
          std::max(v - static_cast<float>(range.high), static_cast<float>(range.low) - v);
      excess = std::max(excess, over * static_cast<float>(255 / (range.high - range.low)));
    }
    if (!(excess > kGamutTolerance) || !block.counts(i)) continue;
    ++outside;
    largest_excess = std::max(largest_excess, excess);
  }
}

GamutCount& GamutCount::operator+=(const GamutCount& other) {
  outside += other.outside;
  largest_excess = std::max(largest_excess, other.largest_excess);
  return *this;
}

}  // namespace chalcedony
