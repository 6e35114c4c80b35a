// The classes of a map and its reference looked up by their labels, for every pixel.
#ifndef CHALCEDONY_CORE_ASSESS_MATCHED_LABELS_H_
#define CHALCEDONY_CORE_ASSESS_MATCHED_LABELS_H_

#include <vector>

#include "core/assess/class_matching.h"
#include "core/pixel/label.h"

namespace chalcedony {

class MatchedLabels {
 public:
  explicit MatchedLabels(const ClassMatching& matching)
      : unclassified_(static_cast<Label>(matching.names.size() + 1)),
        rows_(kLabels),
        columns_(kLabels) {
    rows_[0] = unclassified_;
    for (const auto& [code, place] : matching.of_map) rows_[code] = static_cast<Label>(place + 1);
    for (const auto& [code, place] : matching.of_reference)
      columns_[code] = static_cast<Label>(place + 1);
  }

  /// The row and the column of the error matrix, of which 1 is the first here.
  Label row(Label of_map) const { return rows_[of_map]; }
  Label column(Label of_reference) const { return columns_[of_reference]; }
  /// The row of what the map leaves unclassified.
  Label unclassified() const { return unclassified_; }
  bool is_right(Label of_map, Label of_reference) const {
    return row(of_map) == column(of_reference);
  }

 private:
  Label unclassified_;
  std::vector<Label> rows_, columns_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_ASSESS_MATCHED_LABELS_H_
