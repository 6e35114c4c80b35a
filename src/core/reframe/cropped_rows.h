// A rectangle of a picture, read like a picture of its own.
#ifndef CHALCEDONY_CORE_REFRAME_CROPPED_ROWS_H_
#define CHALCEDONY_CORE_REFRAME_CROPPED_ROWS_H_

#include <memory>
#include <vector>

#include "core/pixel/region.h"
#include "core/pixel/row_source.h"

namespace chalcedony {

class CroppedRows : public RowSource {
 public:
  /// Range     `rect` lies inside the picture
  CroppedRows(std::unique_ptr<RowSource> source, const PixelRect& rect);

  const RasterShape& shape() const override { return shape_; }
  void read_rows(std::uint32_t count, std::byte* rows) override;
  void rewind() override;

 private:
  std::unique_ptr<RowSource> source_;
  PixelRect rect_;
  RasterShape shape_;
  bool at_first_ = false;  // the rows above have been passed
  std::vector<std::byte> row_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_REFRAME_CROPPED_ROWS_H_
