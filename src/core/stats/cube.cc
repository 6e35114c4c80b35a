#include "core/stats/cube.h"

#include <array>
#include <numeric>

namespace chalcedony {
namespace {

/// Makes places among the axes before places among these and one more; what lies past its ends is
/// in the bin there.
void add_axis(const Binning& axis, const float* values, std::size_t n, std::int32_t* places,
              std::int32_t* missing) {
  std::array<std::int32_t, kBlockPixels> found;
  axis.find_bins(values, n, found.data());
  const auto bins = static_cast<std::int32_t>(axis.bins());
  for (std::size_t i = 0; i < n; ++i) {
    const std::int32_t inside = found[i] < 0 ? 0 : found[i];
    places[i] = places[i] * bins + (found[i] == Binning::kAbove ? bins - 1 : inside);
    missing[i] |= static_cast<std::int32_t>(found[i] == Binning::kNotANumber);
  }
}

}  // namespace

CubeHistogram::CubeHistogram(const std::vector<Channel>& channels, std::size_t n)
    : channels_(channels), n_(n), counts_(kCounters) {
  for (const Channel& channel : channels) {
    const ChannelInfo& info = channel.info();
    // 8-bit codes fall into bins of the same width, 0 to 256, as in channel histograms.
    axes_.emplace_back(info.low, info.unit == Unit::kOf255 ? 256 : info.high, n);
    counts_.resize(counts_.size() * n);
  }
}

void CubeHistogram::add(const Block& block, const std::vector<const float*>& values) {
  std::array<std::int32_t, kBlockPixels> bins{}, missing{};
  for (std::size_t c = 0; c < axes_.size(); ++c)
    add_axis(axes_[c], values[c], block.size, bins.data(), missing.data());
  std::uint64_t* const counts = counts_.data();
  for_each_weight(block, [&](std::size_t i, std::uint32_t weight) {
    const std::size_t place = kCounters * static_cast<std::size_t>(bins[i]) + i % kCounters;
    (missing[i] ? no_hue_ : counts[place]) += weight;
  });
}

void CubeHistogram::merge(const CubeHistogram& other) {
  for (std::size_t i = 0; i < counts_.size(); ++i) counts_[i] += other.counts_[i];
  no_hue_ += other.no_hue_;
}

std::vector<std::uint64_t> CubeHistogram::counts() const {
  std::vector<std::uint64_t> counts(counts_.size() / kCounters);
  for (std::size_t i = 0; i < counts_.size(); ++i) counts[i / kCounters] += counts_[i];
  return counts;
}

std::vector<double> CubeHistogram::bins() const {
  const std::vector<std::uint64_t> whole = counts();
  return {whole.begin(), whole.end()};
}

std::uint64_t CubeHistogram::total() const {
  return std::accumulate(counts_.begin(), counts_.end(), no_hue_);
}

}  // namespace chalcedony
