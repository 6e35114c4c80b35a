// Parts of a picture, cut out of its rows in one pass.
#ifndef CHALCEDONY_CORE_PIXEL_CUT_OUTS_H_
#define CHALCEDONY_CORE_PIXEL_CUT_OUTS_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/pixel/raster.h"
#include "core/pixel/region.h"
#include "core/pixel/row_source.h"

namespace chalcedony {

/// Every `step`-th pixel of a rectangle both ways, from its upper left one on, as stored.
struct CutOut {
  std::uint32_t step = 1;
  RasterShape shape;
  std::vector<std::byte> samples;
};

/// Cuts rectangles out of the rows that come next, each with the smallest step that makes it at
/// most `most_side` pixels wide and high. Rows below the last rectangle are not read.
///
/// Range     the rectangles lie inside the picture and are not empty
/// Errors    InputError when the picture is damaged
std::vector<CutOut> cut_out(RowSource& rows, const std::vector<PixelRect>& rects,
                            std::uint32_t most_side);

/// A square about a middle, moved so that it lies inside a picture of this size, or smaller where
/// that is.
PixelRect square_about(double x, double y, std::uint32_t side, const RasterShape& picture);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_CUT_OUTS_H_
