#include "core/stats/hue_counts.h"

namespace chalcedony {
namespace {

constexpr float kColoredSaturation = 20;  // percent

}  // namespace

void HueCounts::add(const Block& block, const float* hue, const float* saturation) {
  for (std::size_t i = 0; i < block.size; ++i)
    if (saturation[i] >= kColoredSaturation && hue[i] < 360)
      bins_[static_cast<std::size_t>(hue[i] * (1.0f / kStep))] += block.weight(i);
}

HueCounts& HueCounts::operator+=(const HueCounts& other) {
  for (std::size_t b = 0; b < kBins; ++b) bins_[b] += other.bins_[b];
  return *this;
}

HueCounts::Window HueCounts::fullest() const {
  Window best;
  for (std::size_t first = 0; first < kBins; ++first) {
    std::uint64_t sum = 0;
    for (std::size_t b = 0; b < kWindow / kStep; ++b) sum += bins_[(first + b) % kBins];
    if (sum > best.pixels) best = {first * kStep, sum};
  }
  return best;
}

}  // namespace chalcedony
