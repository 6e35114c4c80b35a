// Several pictures of labels read as one, so that their pixels meet on the road.
#ifndef CHALCEDONY_CORE_PIXEL_SIDE_BY_SIDE_H_
#define CHALCEDONY_CORE_PIXEL_SIDE_BY_SIDE_H_

#include <memory>
#include <vector>

#include "core/pixel/row_source.h"

namespace chalcedony {

/// The pictures are decoded at the same time, each on a thread of its own where there are enough.
/// Each row holds that row of the first picture, then that of the second, and so on. Samples are 16
/// bits wide when any of the pictures has them so.
class SideBySide : public RowSource {
 public:
  /// Shape     one-channel integer pictures of one size
  explicit SideBySide(std::vector<std::unique_ptr<RowSource>> pictures);

  const RasterShape& shape() const override { return shape_; }
  void read_rows(std::uint32_t count, std::byte* rows) override;
  void rewind() override;

 private:
  /// Reads rows of one picture to its part of each row.
  void read_part(RowSource& picture, std::uint32_t count, std::byte* rows) const;

  std::vector<std::unique_ptr<RowSource>> pictures_;
  RasterShape shape_;
  std::size_t part_bytes_ = 0;  // of a row, for one picture
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_SIDE_BY_SIDE_H_
