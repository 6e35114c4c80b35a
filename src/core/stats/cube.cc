#include "core/stats/cube.h"

#include <algorithm>
#include <numeric>

namespace chalcedony {

CubeHistogram::CubeHistogram(const std::vector<Channel>& channels, std::size_t n)
    : channels_(channels), n_(n), counts_(1) {
  for (const Channel& channel : channels) {
    const ChannelInfo& info = channel.info();
    // 8-bit codes fall into bins of the same width, 0 to 256, as in channel histograms.
    const double high = info.unit == Unit::kOf255 ? 256 : info.high;
    axes_.push_back({static_cast<float>(info.low),
                     static_cast<float>(static_cast<double>(n) / (high - info.low))});
    counts_.resize(counts_.size() * n);
  }
}

void CubeHistogram::add(const Block& block, const std::vector<const float*>& values) {
  const float last = static_cast<float>(n_ - 1);
  for (std::size_t i = 0; i < block.size; ++i) {
    const std::uint32_t weight = block.weight(i);
    if (weight == 0) continue;
    std::size_t bin = 0;
    bool missing = false;
    for (std::size_t c = 0; c < axes_.size(); ++c) {
      const float place = (values[c][i] - axes_[c].low) * axes_[c].per_unit;
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
