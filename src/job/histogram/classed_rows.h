// The rows of a picture together with the classes of its pixels.
#ifndef CHALCEDONY_JOB_HISTOGRAM_CLASSED_ROWS_H_
#define CHALCEDONY_JOB_HISTOGRAM_CLASSED_ROWS_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/pixel/side_by_side.h"
#include "job/histogram/class_source.h"
#include "job/picture/inputs.h"

namespace chalcedony {

class ClassedRows {
 public:
  /// Takes the rows of both, which are of one size.
  ClassedRows(CountedPicture& picture, ClassSource& source);

  /// Each row holds that of the picture first.
  SideBySide& rows() { return rows_; }

  /// The classes of n pixels of such a row from column x on, at most kBlockPixels: from 1 on, 0 is
  /// none. False when none of them has one. May be called from any thread.
  bool read_classes(const std::byte* row, std::uint32_t x, std::size_t n,
                    std::uint8_t* classes) const;

 private:
  SampleType label_type_;
  SideBySide rows_;
  const std::vector<std::uint8_t>& class_of_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_HISTOGRAM_CLASSED_ROWS_H_
