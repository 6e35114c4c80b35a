// How often each combination of labels occurs at the same pixel of several pictures.
#ifndef CHALCEDONY_CORE_ASSESS_LABEL_COUNTS_H_
#define CHALCEDONY_CORE_ASSESS_LABEL_COUNTS_H_

#include <algorithm>
#include <array>
#include <cstddef>
#include <cstdint>
#include <unordered_map>
#include <vector>

#include "core/pixel/label.h"

namespace chalcedony {

/// Labels of up to three pictures at one pixel.
using Labels = std::array<Label, 3>;

/// How often a combination occurs.
struct LabelTotal {
  Labels labels{};
  std::uint64_t count = 0;
};

/// Counts without knowing beforehand which labels there are. The few combinations a picture has
/// meet their counters in a small table; others wait in a map behind it.
class LabelCounts {
 public:
  void add(const Labels& labels, std::uint64_t times = 1) {
    const std::uint64_t key = packed(labels);
    Slot& slot = slots_[key * 0x9e3779b97f4a7c15ull >> 56];
    if (slot.key != key) {
      flush(slot);
      slot.key = key;
    }
    slot.count += times;
  }

  void merge(const LabelCounts& other) {
    for (const Slot& slot : other.slots_)
      if (slot.count > 0) rest_[slot.key] += slot.count;
    for (const auto& [key, count] : other.rest_) rest_[key] += count;
  }

  /// Every combination that occurs, by its labels.
  std::vector<LabelTotal> totals() const {
    LabelCounts all;
    all.merge(*this);
    std::vector<LabelTotal> totals;
    totals.reserve(all.rest_.size());
    for (const auto& [key, count] : all.rest_) totals.push_back({unpacked(key), count});
    std::sort(totals.begin(), totals.end(),
              [](const LabelTotal& a, const LabelTotal& b) { return a.labels < b.labels; });
    return totals;
  }

 private:
  struct Slot {
    std::uint64_t key = 0;
    std::uint64_t count = 0;
  };

  static std::uint64_t packed(const Labels& labels) {
    return std::uint64_t{labels[0]} << 32 | std::uint64_t{labels[1]} << 16 | labels[2];
  }
  static Labels unpacked(std::uint64_t key) {
    return {static_cast<Label>(key >> 32), static_cast<Label>(key >> 16), static_cast<Label>(key)};
  }
  void flush(Slot& slot) {
    if (slot.count > 0) rest_[slot.key] += slot.count;
    slot.count = 0;
  }

  std::array<Slot, 256> slots_{};
  std::unordered_map<std::uint64_t, std::uint64_t> rest_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_ASSESS_LABEL_COUNTS_H_
