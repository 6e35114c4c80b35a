// Sample regions as a picture of labels.
#ifndef CHALCEDONY_CORE_LEARN_SAMPLE_LABELS_H_
#define CHALCEDONY_CORE_LEARN_SAMPLE_LABELS_H_

#include <vector>

#include "core/learn/sample_shape.h"
#include "core/pixel/row_source.h"

namespace chalcedony {

/// 16-bit labels, drawn row by row: the number of the class (1 is the first) inside its samples, 0
/// elsewhere and where samples of two classes overlap.
class SampleLabels : public RowSource {
 public:
  /// `runs` as sample_runs gives them for this size.
  SampleLabels(std::vector<SampleRun> runs, std::uint32_t width, std::uint32_t height);

  const RasterShape& shape() const override { return shape_; }
  void read_rows(std::uint32_t count, std::byte* rows) override;
  void rewind() override { next_row_ = next_run_ = 0; }

 private:
  std::vector<SampleRun> runs_;
  RasterShape shape_;
  std::size_t next_row_ = 0;
  std::size_t next_run_ = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_SAMPLE_LABELS_H_
