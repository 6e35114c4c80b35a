// A rectangle seen at a slant: where its corners are in a picture, and what lies between them.
#ifndef CHALCEDONY_CORE_REFRAME_FOUR_CORNERS_H_
#define CHALCEDONY_CORE_REFRAME_FOUR_CORNERS_H_

#include <array>
#include <string_view>

#include "core/pixel/raster.h"

namespace chalcedony {

/// In pixels of a picture, y down: (0, 0) is its upper left corner, (0.5, 0.5) the middle of its
/// first pixel.
struct PicturePoint {
  double x = 0, y = 0;
};

/// Top left, top right, bottom right, bottom left.
using FourCorners = std::array<PicturePoint, 4>;

/// Reads "x,y x,y x,y x,y".
///
/// Errors    UsageError when these are no four points, or do not go round clockwise and convex
FourCorners parse_corners(std::string_view text);

/// The size of the rectangle: the means of opposite sides, in pixels of the picture.
RasterShape straightened_shape(const RasterShape& picture, const FourCorners& corners);

/// Where places of a rectangle lie in the picture.
///
/// Source    Heckbert (1989), Fundamentals of texture mapping and image warping, 2.2.3: the
///           projective map of the unit square onto a quadrilateral
class SquareMap {
 public:
  explicit SquareMap(const FourCorners& corners);

  /// The places of one height: (x + u x_by_u) / (w + u w_by_u), and so for y.
  struct Row {
    double x, y, w;
    double x_by_u, y_by_u, w_by_u;
  };

  /// v from 0 at the top to 1 at the bottom.
  Row row(double v) const { return {b_ * v + c_, e_ * v + f_, h_ * v + 1, a_, d_, g_}; }
  /// u from 0 at the left to 1 at the right.
  PicturePoint at(double u, double v) const {
    const Row all = row(v);
    const double w = all.w + u * all.w_by_u;
    return {(all.x + u * all.x_by_u) / w, (all.y + u * all.y_by_u) / w};
  }

 private:
  double a_, b_, c_, d_, e_, f_, g_, h_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_REFRAME_FOUR_CORNERS_H_
