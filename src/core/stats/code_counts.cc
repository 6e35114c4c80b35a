#include "core/stats/code_counts.h"

#include <cstring>

namespace chalcedony {
namespace {

// Samples are taken from a word at a time, which spares half of the time of reading them one by
// one.
template <std::size_t kChannels>
void count(const std::byte* stored, std::size_t n, CodeCounts::Tables* counts) {
  constexpr std::size_t kSamples = 4 * kChannels;
  const std::size_t fours = n / 4;
  for (std::size_t i = 0; i < fours; ++i, stored += kSamples) {
    std::array<std::uint32_t, kChannels> words;
    std::memcpy(words.data(), stored, kSamples);
#pragma GCC unroll 16
    for (std::size_t k = 0; k < kSamples; ++k)
      ++counts[k % kChannels][k / kChannels][words[k / 4] >> 8 * (k % 4) & 255];
  }
  for (std::size_t k = 0; k < (n - 4 * fours) * kChannels; ++k)
    ++counts[k % kChannels][0][std::to_integer<std::size_t>(stored[k])];
}

}  // namespace

std::optional<std::uint32_t> deciding_sample(const Channel& channel, const PictureInfo& info) {
  if (info.shape.sample != SampleType::kU8 || info.alpha == AlphaKind::kPremultiplied || info.bands)
    return std::nullopt;
  if (channel.is_stored())
    return channel.index < info.shape.channels
               ? std::optional(static_cast<std::uint32_t>(channel.index))
               : std::nullopt;
  if (channel.is_hue() || channel.derived) return std::nullopt;
  if (info.color_channels() == 1 && info.known_in_range()) return 0;
  if (channel.space != info.space) return std::nullopt;
  return static_cast<std::uint32_t>(channel.index);
}

CodeCounts::CodeCounts(std::uint32_t channels) : counts_(channels) {}

void CodeCounts::add(const std::byte* stored, std::size_t n) {
  switch (counts_.size()) {
    case 1:
      return count<1>(stored, n, counts_.data());
    case 2:
      return count<2>(stored, n, counts_.data());
    case 3:
      return count<3>(stored, n, counts_.data());
    default:
      return count<4>(stored, n, counts_.data());
  }
}

void CodeCounts::merge(const CodeCounts& other) {
  for (std::size_t c = 0; c < counts_.size(); ++c)
    for (std::size_t t = 0; t < kTables; ++t)
      for (std::size_t v = 0; v < 256; ++v) counts_[c][t][v] += other.counts_[c][t][v];
}

CodeCounts::Counts CodeCounts::of(std::uint32_t channel) const {
  Counts sum{};
  for (const Counts& one : counts_[channel])
    for (std::size_t v = 0; v < 256; ++v) sum[v] += one[v];
  return sum;
}

}  // namespace chalcedony
