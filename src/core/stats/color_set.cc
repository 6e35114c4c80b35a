#include "core/stats/color_set.h"

#include <bit>

#include "core/pixel/interleave.h"

namespace chalcedony {
namespace {

constexpr std::size_t kWords = std::size_t{1} << 18;  // of 64 colors

}  // namespace

void ColorSet::add(const Block& block, const std::array<SampleScale, 3>& scales) {
  if (seen_.empty()) seen_.resize(kWords);
  codes_.resize(3 * kBlockPixels);
  write_planes(block.color, block.size, 3, SampleType::kU8, scales, codes_.data());
  for (std::size_t i = 0; i < block.size; ++i) {
    if (!block.counts(i)) continue;
    const auto code = [&](std::size_t c) {
      return std::to_integer<std::uint32_t>(codes_[3 * i + c]);
    };
    const std::uint32_t rgb = code(0) << 16 | code(1) << 8 | code(2);
    seen_[rgb / 64] |= std::uint64_t{1} << (rgb % 64);
  }
}

void ColorSet::merge(const ColorSet& other) {
  if (seen_.empty()) seen_.resize(kWords);
  for (std::size_t i = 0; i < other.seen_.size(); ++i) seen_[i] |= other.seen_[i];
}

std::uint64_t ColorSet::count() const {
  std::uint64_t n = 0;
  for (const std::uint64_t bits : seen_) n += static_cast<std::uint64_t>(std::popcount(bits));
  return n;
}

}  // namespace chalcedony
