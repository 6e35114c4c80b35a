#include "core/cluster/pixel_sample.h"

#include <algorithm>
#include <array>

#include "core/pixel/flags.h"
#include "core/pixel/pixel_hash.h"

namespace chalcedony {
namespace {

/// Takes away the flags of pixels whose value is not a number.
void keep_numbers(const float* __restrict values, std::size_t n, std::uint8_t* __restrict flags) {
  for (std::size_t i = 0; i < n; ++i) flags[i] &= static_cast<std::uint8_t>(values[i] == values[i]);
}

}  // namespace

void HashLimit::lower(std::uint64_t limit) {
  for (std::uint64_t before = now();
       before > limit && !limit_.compare_exchange_weak(before, limit, std::memory_order_relaxed);) {
  }
}

void PixelSample::add(const Block& block, const FeatureEvaluator& evaluator, std::uint64_t seed,
                      std::uint64_t limit) {
  std::array<std::uint8_t, kBlockPixels> flags;
  copy_counted(block, flags.data());
  const std::uint32_t counted = count_flags(flags.data(), block.size);
  for (const float* const values : evaluator.values())
    keep_numbers(values, block.size, flags.data());
  const std::uint32_t complete = count_flags(flags.data(), block.size);
  counted_ += complete;
  left_out_ += counted - complete;
  for (std::size_t i = 0; i < block.size; ++i) {
    if (!flags[i]) continue;
    const std::uint64_t hash = pixel_hash(seed, block.pixel(i));
    if (hash > limit) continue;
    hashes_.push_back(hash);
    for (const float* const values : evaluator.values()) values_.push_back(values[i]);
  }
}

void PixelSample::append(const PixelSample& later) {
  hashes_.insert(hashes_.end(), later.hashes_.begin(), later.hashes_.end());
  values_.insert(values_.end(), later.values_.begin(), later.values_.end());
  counted_ += later.counted_;
  left_out_ += later.left_out_;
}

void PixelSample::keep_smallest(std::size_t most, HashLimit& limit) {
  if (hashes_.size() <= most) return;
  std::vector<std::uint64_t> hashes = hashes_;
  const auto last = hashes.begin() + static_cast<std::ptrdiff_t>(most) - 1;
  std::nth_element(hashes.begin(), last, hashes.end());
  limit.lower(*last);
  std::size_t kept = 0;
  for (std::size_t i = 0; i < hashes_.size(); ++i) {
    if (hashes_[i] > *last) continue;
    hashes_[kept] = hashes_[i];
    std::copy_n(values(i), features_, values_.data() + kept * features_);
    ++kept;
  }
  hashes_.resize(kept);
  values_.resize(kept * features_);
}

}  // namespace chalcedony
