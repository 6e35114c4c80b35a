// A picture turned by any angle.
#ifndef CHALCEDONY_CORE_REFRAME_TURNED_ROWS_H_
#define CHALCEDONY_CORE_REFRAME_TURNED_ROWS_H_

#include <cstdint>
#include <memory>

#include "core/reframe/moved_rows.h"

namespace chalcedony {

/// The smallest upright size that holds a turned picture.
RasterShape turned_shape(const RasterShape& shape, double degrees);

class TurnedRows : public MovedRows {
 public:
  /// `info` is what the source's samples mean; with a transparent fill the rows get alpha.
  /// `degrees`: clockwise as seen.
  TurnedRows(std::unique_ptr<RowSource> source, const PictureInfo& info, double degrees,
             const PointLook& look);

 private:
  PictureLine line_of_row(std::uint32_t y) const override;

  double cosine_, sine_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_REFRAME_TURNED_ROWS_H_
