#include "core/pixel/cut_outs.h"

#include <algorithm>
#include <cmath>

namespace chalcedony {
namespace {

CutOut empty_cut_out(const PixelRect& rect, std::uint32_t most_side, RasterShape shape) {
  const std::uint32_t longer = std::max(rect.width, rect.height);
  const std::uint32_t step = (longer + most_side - 1) / most_side;
  shape.width = (rect.width + step - 1) / step;
  shape.height = (rect.height + step - 1) / step;
  return {step, shape, std::vector<std::byte>(shape.row_bytes() * shape.height)};
}

/// Takes what belongs to a cut-out of row y.
void take_row(const std::byte* row, std::uint32_t y, const PixelRect& rect, CutOut& out) {
  if (y < rect.y || y - rect.y >= rect.height || (y - rect.y) % out.step != 0) return;
  const std::size_t bytes = out.shape.pixel_bytes();
  const std::byte* from = row + rect.x * bytes;
  std::byte* to = out.samples.data() + (y - rect.y) / out.step * out.shape.row_bytes();
  for (std::uint32_t x = 0; x < out.shape.width; ++x, from += out.step * bytes, to += bytes)
    std::copy_n(from, bytes, to);
}

std::uint32_t first_of(double middle, std::uint32_t side, std::uint32_t end) {
  const double first = std::round(middle - side / 2.0);
  return static_cast<std::uint32_t>(std::clamp(first, 0.0, static_cast<double>(end - side)));
}

}  // namespace

std::vector<CutOut> cut_out(RowSource& rows, const std::vector<PixelRect>& rects,
                            std::uint32_t most_side) {
  std::vector<CutOut> cut;
  std::uint32_t end = 0;
  for (const PixelRect& rect : rects) {
    cut.push_back(empty_cut_out(rect, most_side, rows.shape()));
    end = std::max(end, rect.y + rect.height);
  }
  std::vector<std::byte> row(rows.shape().row_bytes());
  for (std::uint32_t y = 0; y < end; ++y) {
    rows.read_rows(1, row.data());
    for (std::size_t i = 0; i < rects.size(); ++i) take_row(row.data(), y, rects[i], cut[i]);
  }
  return cut;
}

PixelRect square_about(double x, double y, std::uint32_t side, const RasterShape& picture) {
  const std::uint32_t width = std::min(side, picture.width),
                      height = std::min(side, picture.height);
  return {first_of(x, width, picture.width), first_of(y, height, picture.height), width, height};
}

}  // namespace chalcedony
