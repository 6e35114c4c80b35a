#include "core/stats/picture_traits.h"

#include <algorithm>

namespace chalcedony {

void PictureTraits::add(const Block& block, const PictureInfo& info) {
  const bool color = info.color_channels() == 3 && info.has_color();
  for (std::size_t i = 0; i < block.size && !colored && color; ++i)
    colored = block.counts(i) &&
              (block.color[0][i] != block.color[1][i] || block.color[1][i] != block.color[2][i]);
  if (block.alpha)
    for (std::size_t i = 0; i < block.size && !translucent; ++i)
      translucent = block.alpha[i] < 1.0f;
  if (info.shape.sample != SampleType::kU16) return;
  const auto* samples = reinterpret_cast<const std::uint16_t*>(block.stored);
  const std::size_t count = block.size * info.shape.channels;
  // Not members, which what is read might alias.
  std::uint16_t largest = largest_sample, unlike = 0;
  for (std::size_t i = 0; i < count; ++i) {
    largest = std::max(largest, samples[i]);
    unlike |= static_cast<std::uint16_t>((samples[i] >> 8) ^ (samples[i] & 255));
  }
  largest_sample = largest;
  uses_low_bytes |= unlike != 0;
}

void PictureTraits::merge(const PictureTraits& other) {
  colored |= other.colored;
  translucent |= other.translucent;
  uses_low_bytes |= other.uses_low_bytes;
  largest_sample = std::max(largest_sample, other.largest_sample);
}

}  // namespace chalcedony
