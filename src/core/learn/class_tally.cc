#include "core/learn/class_tally.h"

#include <algorithm>
#include <utility>

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/learn/class_tally.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// Adds n labels to the counts of those from 0 to `largest`, by comparing all with each.
void count_each(const std::uint8_t* labels, std::size_t n, std::size_t largest,
                std::uint64_t* counts) {
  const hn::CappedTag<std::uint8_t, 32> d;
  std::size_t others = n;
  for (std::size_t label = 1; label <= largest; ++label) {
    const auto number = static_cast<std::uint8_t>(label);
    const auto wanted = hn::Set(d, number);
    std::size_t found = 0, i = 0;
    for (; i + hn::Lanes(d) <= n; i += hn::Lanes(d))
      found += hn::CountTrue(d, hn::Eq(hn::LoadU(d, labels + i), wanted));
    for (; i < n; ++i) found += labels[i] == number ? 1 : 0;
    counts[label] += found;
    others -= found;
  }
  counts[0] += others;
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {
namespace {

HWY_EXPORT(count_each);

constexpr std::size_t kFewLabels = 32;  // as quick to compare with each as to count one by one

}  // namespace

ClassTally::ClassTally(std::size_t largest) : counts_(largest + 1) {
  if (largest > kFewLabels) codes_.emplace(1);
}

void ClassTally::add(const std::uint8_t* labels, std::size_t n) {
  if (codes_) {
    codes_->add(reinterpret_cast<const std::byte*>(labels), n);
  } else {
    HWY_DYNAMIC_DISPATCH(count_each)(labels, n, counts_.size() - 1, counts_.data());
  }
}

void ClassTally::add(const Label* labels, std::size_t n) {
  for (std::size_t i = 0; i < n; ++i) ++counts_[labels[i]];
}

void ClassTally::add(const std::byte* stored, SampleType sample, const Block& block) {
  if (sample == SampleType::kU8) {
    add(reinterpret_cast<const std::uint8_t*>(stored), block.size);
  } else {
    add(reinterpret_cast<const Label*>(stored), block.size);
  }
  counts_[0] -= block.size - block.counted_size;
}

ClassTally& ClassTally::operator+=(const ClassTally& other) {
  for (std::size_t label = 0; label < counts_.size(); ++label)
    counts_[label] += other.counts_[label];
  if (codes_) codes_->merge(*other.codes_);
  return *this;
}

std::vector<std::uint64_t> ClassTally::take() {
  std::vector<std::uint64_t> counts(counts_.size());
  counts_.swap(counts);
  if (!codes_) return counts;
  const CodeCounts::Counts codes = std::exchange(*codes_, CodeCounts(1)).of(0);
  for (std::size_t label = 0; label < std::min(counts.size(), codes.size()); ++label)
    counts[label] += codes[label];
  return counts;
}

}  // namespace chalcedony
#endif
