#include "core/reframe/straightened_rows.h"

#include <algorithm>
#include <utility>

namespace chalcedony {
namespace {

/// Whether all that lies between the corners is of the picture.
bool all_inside(const RasterShape& shape, const FourCorners& corners) {
  return std::all_of(corners.begin(), corners.end(), [&](const PicturePoint& p) {
    return p.x >= 0 && p.y >= 0 && p.x <= shape.width && p.y <= shape.height;
  });
}

PointLook with_beside(PointLook look, bool beside) {
  look.beside = beside;
  return look;
}

}  // namespace

StraightenedRows::StraightenedRows(std::unique_ptr<RowSource> source, const PictureInfo& info,
                                   const FourCorners& corners, const PointLook& look)
    : MovedRows(std::move(source), info, with_beside(look, !all_inside(info.shape, corners)),
                straightened_shape(info.shape, corners)),
      map_(corners) {}

PictureLine StraightenedRows::line_of_row(std::uint32_t y) const {
  const double width = shape().width, v = (y + 0.5) / shape().height;
  const SquareMap::Row row = map_.row(v);
  // From the middle of the first pixel on; what is a center here is half a pixel further there.
  const double w = row.w + row.w_by_u * 0.5 / width, step_w = row.w_by_u / width;
  return {row.x + row.x_by_u * 0.5 / width - 0.5 * w,
          row.y + row.y_by_u * 0.5 / width - 0.5 * w,
          row.x_by_u / width - 0.5 * step_w,
          row.y_by_u / width - 0.5 * step_w,
          w,
          step_w};
}

}  // namespace chalcedony
