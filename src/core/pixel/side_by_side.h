// Several pictures of labels read as one, so that their pixels meet on the road.
#ifndef CHALCEDONY_CORE_PIXEL_SIDE_BY_SIDE_H_
#define CHALCEDONY_CORE_PIXEL_SIDE_BY_SIDE_H_

#include <memory>
#include <vector>

#include "core/pixel/row_source.h"

namespace chalcedony {

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
  void read_widened(RowSource& picture, std::byte* row);

  std::vector<std::unique_ptr<RowSource>> pictures_;
  RasterShape shape_;
  std::vector<std::byte> narrow_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_SIDE_BY_SIDE_H_
