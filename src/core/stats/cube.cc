#include "core/stats/cube.h"

#include <algorithm>
#include <numeric>

namespace chalcedony {

CubeHistogram::CubeHistogram(const Space& space, std::size_t n)
    : space_(&space), n_(n), counts_(n * n * n) {
  for (std::size_t c = 0; c < 3; ++c) {
    const ChannelInfo& info = space.channels[c];
    // 8-bit codes fall into bins of the same width, 0 to 256, as in channel histograms.
    const double high = info.unit == Unit::kOf255 ? 256 : info.high;
    low_[c] = static_cast<float>(info.low);
    per_unit_[c] = static_cast<float>(static_cast<double>(n) / (high - info.low));
  }
}

void CubeHistogram::add(const Block& block, const ConstPlanes& channels) {
  const float last = static_cast<float>(n_ - 1);
  for (std::size_t i = 0; i < block.size; ++i) {
    const std::uint32_t weight = block.weight(i);
    if (weight == 0) continue;
    std::size_t bin = 0;
    bool missing = false;
    for (std::size_t c = 0; c < 3; ++c) {
      const float place = (channels[c][i] - low_[c]) * per_unit_[c];
      missing |= place != place;
      bin = bin * n_ + static_cast<std::size_t>(std::clamp(missing ? 0.0f : place, 0.0f, last));
    }
    (missing ? no_hue_ : counts_[bin]) += weight;
  }
}

void CubeHistogram::merge(const CubeHistogram& other) {
  for (std::size_t i = 0; i < counts_.size(); ++i) counts_[i] += other.counts_[i];
  no_hue_ += other.no_hue_;
}

std::uint64_t CubeHistogram::total() const {
  return std::accumulate(counts_.begin(), counts_.end(), no_hue_);
}

}  // namespace chalcedony
