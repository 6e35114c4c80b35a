#include "core/stats/ranks.h"

#include <algorithm>
#include <bit>
#include <cmath>

namespace chalcedony {
namespace {

constexpr std::uint32_t kSign = 0x80000000u;
constexpr std::size_t kLowerValues = 1u << 16;

/// Unsigned numbers in the order of the floats.
std::uint32_t key_of(float value) {
  const auto bits = std::bit_cast<std::uint32_t>(value + 0.0f);  // + 0 makes -0 a 0
  return bits & kSign ? ~bits : bits | kSign;
}

float value_of(std::uint32_t key) {
  return std::bit_cast<float>(key & kSign ? key & ~kSign : ~key);
}

}  // namespace

Ranks::Ranks() : coarse_(1u << 16) {}

void Ranks::add_coarse(const Block& block, const float* values) {
  // Not members, which the counts might alias.
  std::uint64_t* const coarse = coarse_.data();
  std::uint64_t total = 0;
  std::uint32_t low_bits = 0;
  for_each_weight(block, [&](std::size_t i, std::uint32_t pixels) {
    if (pixels == 0 || values[i] != values[i]) return;
    coarse[key_of(values[i]) >> 16] += pixels;
    low_bits |= std::bit_cast<std::uint32_t>(values[i]);
    total += pixels;
  });
  low_bits_ |= low_bits & 0xffffu;
  total_ += total;
}

void Ranks::merge_coarse(const Ranks& other) {
  for (std::size_t i = 0; i < coarse_.size(); ++i) coarse_[i] += other.coarse_[i];
  total_ += other.total_;
  low_bits_ |= other.low_bits_;
}

std::uint64_t nearest_rank(double p, std::uint64_t n) {
  const double exact = p / 100.0 * static_cast<double>(n);
  return std::clamp<std::uint64_t>(static_cast<std::uint64_t>(std::ceil(exact - 1e-9)), 1, n);
}

bool Ranks::refine(const std::vector<double>& percentiles) {
  if (low_bits_ == 0 || total_ == 0) return false;
  fine_of_upper_.assign(coarse_.size(), 0);
  for (const double p : percentiles) {
    std::uint64_t left = nearest_rank(p, total_);
    std::uint32_t upper = 0;
    while (left > coarse_[upper]) left -= coarse_[upper++];
    if (fine_of_upper_[upper] != 0) continue;
    fine_.emplace_back();
    fine_of_upper_[upper] = static_cast<std::uint8_t>(fine_.size());
  }
  return true;
}

void Ranks::add_fine(const Block& block, const float* values) {
  if (fine_.empty()) return;
  const std::uint8_t* const places = fine_of_upper_.data();
  for (std::size_t i = 0; i < block.size; ++i) {
    const std::uint32_t key = key_of(values[i]);
    const std::size_t place = places[key >> 16];
    if (place == 0) continue;
    const std::uint32_t pixels = block.weight(i);
    if (pixels == 0 || values[i] != values[i]) continue;
    std::vector<std::uint64_t>& fine = fine_[place - 1];
    if (fine.empty()) fine.resize(kLowerValues);
    fine[key & 0xffffu] += pixels;
  }
}

void Ranks::merge_fine(const Ranks& other) {
  for (std::size_t f = 0; f < fine_.size(); ++f) {
    if (other.fine_[f].empty()) continue;
    fine_[f].resize(kLowerValues);
    for (std::size_t i = 0; i < kLowerValues; ++i) fine_[f][i] += other.fine_[f][i];
  }
}

std::optional<float> Ranks::percentile(double p) const {
  if (total_ == 0) return std::nullopt;
  std::uint64_t left = nearest_rank(p, total_);
  std::uint32_t upper = 0;
  while (left > coarse_[upper]) left -= coarse_[upper++];
  const std::size_t place = fine_.empty() ? 0 : fine_of_upper_[upper];
  // Without a second pass every lower bit is zero; those of a negative value are ones in its key.
  if (place == 0) {
    const bool negative = upper < 0x8000u;
    return value_of(upper << 16 | (negative ? 0xffffu : 0u));
  }
  const std::vector<std::uint64_t>& fine = fine_[place - 1];
  std::uint32_t lower = 0;
  while (left > fine[lower]) left -= fine[lower++];
  return value_of(upper << 16 | lower);
}

}  // namespace chalcedony
