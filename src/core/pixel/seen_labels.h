// Which labels occur.
#ifndef CHALCEDONY_CORE_PIXEL_SEEN_LABELS_H_
#define CHALCEDONY_CORE_PIXEL_SEEN_LABELS_H_

#include <cstddef>
#include <vector>

#include "core/pixel/label.h"

namespace chalcedony {

class SeenLabels {
 public:
  SeenLabels() : seen_(kLabels) {}

  void add(Label label) { seen_[label] = true; }
  void add(const Label* labels, std::size_t n) {
    for (std::size_t i = 0; i < n; ++i) add(labels[i]);
  }

  /// Those that occurred, in order, 0 aside.
  std::vector<Label> labels() const {
    std::vector<Label> labels;
    for (std::size_t label = 1; label < kLabels; ++label)
      if (seen_[label]) labels.push_back(static_cast<Label>(label));
    return labels;
  }

 private:
  std::vector<bool> seen_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_SEEN_LABELS_H_
