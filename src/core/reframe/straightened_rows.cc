#include "core/reframe/straightened_rows.h"

#include <algorithm>
#include <utility>

#include "core/pixel/isolated_loop.h"

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
                                   const FourCorners& corners, PointLook look)
    : points_(std::move(source), info, with_beside(look, !all_inside(info.shape, corners))),
      to_(points_.info()),
      map_(corners) {
  const RasterShape shape = straightened_shape(info.shape, corners);
  to_.shape.width = shape.width;
  to_.shape.height = shape.height;
}

void StraightenedRows::read_rows(std::uint32_t count, std::byte* rows) {
  points_.load();
  const auto make = [&](std::uint32_t r) {
    std::byte* const row = rows + r * to_.shape.row_bytes();
    with_sample(to_.shape.sample, [&]<class Sample>(Sample) {
      make_row(next_row_ + r, reinterpret_cast<Sample*>(row));
    });
  };
  isolated_loop(count, make);
  next_row_ += count;
}

template <class Sample>
void StraightenedRows::make_row(std::uint32_t y, Sample* out) const {
  const double v = (y + 0.5) / to_.shape.height;
  for (std::uint32_t x = 0; x < to_.shape.width; ++x) {
    const PicturePoint place = map_.at((x + 0.5) / to_.shape.width, v);
    points_.take(place.x - 0.5, place.y - 0.5, out + std::size_t{x} * to_.shape.channels);
  }
}

}  // namespace chalcedony
