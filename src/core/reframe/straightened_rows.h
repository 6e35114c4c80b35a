// A rectangle that was seen at a slant, made upright.
#ifndef CHALCEDONY_CORE_REFRAME_STRAIGHTENED_ROWS_H_
#define CHALCEDONY_CORE_REFRAME_STRAIGHTENED_ROWS_H_

#include <cstdint>
#include <memory>

#include "core/reframe/four_corners.h"
#include "core/reframe/moved_rows.h"

namespace chalcedony {

class StraightenedRows : public MovedRows {
 public:
  /// `info` is what the source's samples mean. Corners may lie beside the picture; only then the
  /// rows get alpha with a transparent fill.
  StraightenedRows(std::unique_ptr<RowSource> source, const PictureInfo& info,
                   const FourCorners& corners, const PointLook& look);

 private:
  PictureLine line_of_row(std::uint32_t y) const override;

  SquareMap map_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_REFRAME_STRAIGHTENED_ROWS_H_
