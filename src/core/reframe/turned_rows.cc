#include "core/reframe/turned_rows.h"

#include <algorithm>
#include <cmath>
#include <utility>

#include "core/degrees.h"

namespace chalcedony {

RasterShape turned_shape(const RasterShape& shape, double degrees) {
  const double c = std::abs(std::cos(radians(degrees))), s = std::abs(std::sin(radians(degrees)));
  const auto side = [](double length) {
    return static_cast<std::uint32_t>(std::max(1.0, std::ceil(length - 1e-6)));
  };
  RasterShape turned = shape;
  turned.width = side(shape.width * c + shape.height * s);
  turned.height = side(shape.width * s + shape.height * c);
  return turned;
}

TurnedRows::TurnedRows(std::unique_ptr<RowSource> source, const PictureInfo& info, double degrees,
                       const PointLook& look)
    : MovedRows(std::move(source), info, look, turned_shape(info.shape, degrees)),
      cosine_(std::cos(radians(degrees))),
      sine_(std::sin(radians(degrees))) {}

PictureLine TurnedRows::line_of_row(std::uint32_t y) const {
  const double down = y + 0.5 - shape().height / 2.0, across = 0.5 - shape().width / 2.0;
  return {across * cosine_ + down * sine_ + (old().shape.width - 1) / 2.0,
          down * cosine_ - across * sine_ + (old().shape.height - 1) / 2.0, cosine_, -sine_};
}

}  // namespace chalcedony
