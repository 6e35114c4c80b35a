#include "core/stats/color_set.h"

#include <bit>

#include "core/pixel/color_number.h"
#include "core/pixel/interleave.h"

namespace chalcedony {
namespace {

constexpr std::size_t kWords = kColorNumbers / 64;

}  // namespace

void ColorSet::add(const Block& block, const std::array<SampleScale, 3>& scales) {
  if (seen_.empty()) seen_.resize(kWords);
  codes_.resize(3 * kBlockPixels);
  write_planes(block.color, block.size, 3, SampleType::kU8, scales, codes_.data());
  numbers_.resize(kBlockPixels);
  color_numbers(codes_.data(), 3, block.size, numbers_.data());
  const std::uint32_t* const numbers = numbers_.data();
  std::uint64_t* const seen = seen_.data();
  for (std::size_t i = 0; i < block.size; ++i)
    if (block.counts(i)) seen[numbers[i] / 64] |= std::uint64_t{1} << (numbers[i] % 64);
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
