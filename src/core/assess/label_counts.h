// How often each combination of labels occurs at the same pixel of several pictures.
#ifndef CHALCEDONY_CORE_ASSESS_LABEL_COUNTS_H_
#define CHALCEDONY_CORE_ASSESS_LABEL_COUNTS_H_

#include <algorithm>
#include <array>
#include <cstddef>
#include <cstdint>
#include <unordered_map>
#include <vector>

#include "core/assess/labels.h"

namespace chalcedony {

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
    Slot& slot = slots_[labels.hash() >> 56];
    if (slot.labels != labels) {
      flush(slot);
      slot.labels = labels;
    }
    slot.count += times;
  }

  void merge(const LabelCounts& other) {
    for (const Slot& slot : other.slots_)
      if (slot.count > 0) rest_[slot.labels] += slot.count;
    for (const auto& [labels, count] : other.rest_) rest_[labels] += count;
  }

  /// Every combination that occurs, by its labels.
  std::vector<LabelTotal> totals() const {
    LabelCounts all;
    all.merge(*this);
    std::vector<LabelTotal> totals;
    totals.reserve(all.rest_.size());
    for (const auto& [labels, count] : all.rest_) totals.push_back({labels, count});
    std::sort(totals.begin(), totals.end(),
              [](const LabelTotal& a, const LabelTotal& b) { return a.labels < b.labels; });
    return totals;
  }

 private:
  struct Slot {
    Labels labels{};
    std::uint64_t count = 0;
  };
  struct Hash {
    std::size_t operator()(const Labels& labels) const { return labels.hash(); }
  };

  void flush(Slot& slot) {
    if (slot.count > 0) rest_[slot.labels] += slot.count;
    slot.count = 0;
  }

  std::array<Slot, 256> slots_{};
  std::unordered_map<Labels, std::uint64_t, Hash> rest_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_ASSESS_LABEL_COUNTS_H_
