#include "core/stats/distinct_colors.h"

#include <algorithm>
#include <array>
#include <bit>
#include <utility>

#include "core/pixel/pixel_hash.h"

namespace chalcedony {
namespace {

constexpr std::size_t kFirstRoom = 1024;
constexpr std::size_t kMarksAtOnce = 64;

/// Never 0. Zeros of both signs are one color.
std::uint64_t mark_of(const Block& block, std::size_t i) {
  const auto bits = [&](std::size_t c) {
    return std::uint64_t{std::bit_cast<std::uint32_t>(block.color[c][i] + 0.0f)};
  };
  const std::uint64_t mark = mixed_bits(mixed_bits(bits(0) << 32 | bits(1)) ^ bits(2));
  return mark == 0 ? 1 : mark;
}

}  // namespace

void DistinctColors::add(const Block& block) {
  std::array<std::uint64_t, kMarksAtOnce> marks;
  for (std::size_t done = 0; done < block.size && count_ <= kMost; done += kMarksAtOnce) {
    const std::size_t size = std::min(kMarksAtOnce, block.size - done);
    if (marks_.empty()) grow();
    for (std::size_t i = 0; i < size; ++i) marks[i] = mark_of(block, done + i);
    // Places of colors lie all over the memory: it is asked for them beforehand.
    for (std::size_t i = 0; i < size; ++i)
      __builtin_prefetch(marks_.data() + (marks[i] & (marks_.size() - 1)));
    for (std::size_t i = 0; i < size; ++i)
      if (block.counts(done + i)) insert(marks[i]);
  }
}

void DistinctColors::merge(const DistinctColors& other) {
  if (other.count_ > kMost) count_ = other.count_;
  for (std::size_t i = 0; i < other.marks_.size() && count_ <= kMost; ++i)
    if (other.marks_[i] != 0) insert(other.marks_[i]);
}

std::optional<std::size_t> DistinctColors::count() const {
  return count_ > kMost ? std::nullopt : std::optional(count_);
}

std::uint64_t& DistinctColors::place_of(std::uint64_t mark) {
  std::size_t at = mark & (marks_.size() - 1);
  while (marks_[at] != 0 && marks_[at] != mark) at = (at + 1) & (marks_.size() - 1);
  return marks_[at];
}

void DistinctColors::insert(std::uint64_t mark) {
  if (2 * count_ >= marks_.size()) grow();
  std::uint64_t& place = place_of(mark);
  if (place == mark) return;
  place = mark;
  ++count_;
}

void DistinctColors::grow() {
  LargeVector<std::uint64_t> old(marks_.empty() ? kFirstRoom : 2 * marks_.size(), 0);
  std::swap(old, marks_);
  for (const std::uint64_t mark : old)
    if (mark != 0) place_of(mark) = mark;
}

}  // namespace chalcedony
