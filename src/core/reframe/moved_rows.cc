#include "core/reframe/moved_rows.h"

#include <algorithm>
#include <array>
#include <utility>

#include "core/pixel/isolated_loop.h"

namespace chalcedony {

MovedRows::MovedRows(std::unique_ptr<RowSource> source, const PictureInfo& info,
                     const PointLook& look, const RasterShape& size)
    : points_(std::move(source), info, look), to_(points_.info()), nearest_(look.nearest) {
  to_.shape.width = size.width;
  to_.shape.height = size.height;
}

void MovedRows::read_rows(std::uint32_t count, std::byte* rows) {
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
void MovedRows::make_row(std::uint32_t y, Sample* out) const {
  const PictureLine line = line_of_row(y);
  const std::uint32_t width = to_.shape.width;
  const auto make = [&](std::uint32_t first, std::uint32_t last) {
    for (std::uint32_t x = first; x < last; ++x) {
      Sample* const pixel = out + std::size_t{x} * to_.shape.channels;
      points_.take(line.x_of(x), line.y_of(x), pixel);
    }
  };
  if (nearest_ || old().alpha != AlphaKind::kNone) return make(0, width);
  // Those that see nothing of the old picture, those that see its edge, and all others.
  const PixelRange some = pixels_within(line, -2, {0, width}), all = pixels_within(line, 1, some);
  make_outside(0, some.first, out);
  make(some.first, all.first);
  make_inside(line, all, out);
  make(all.last, some.last);
  make_outside(some.last, width, out);
}

/// The new pixels of a range that lie so far within the old picture, beyond the centers of its
/// outer pixels.
MovedRows::PixelRange MovedRows::pixels_within(const PictureLine& line, double margin,
                                               PixelRange range) const {
  const double right = old().shape.width - 1 - margin, bottom = old().shape.height - 1 - margin;
  const auto is_within = [&](std::uint32_t i) {
    const double x = line.x_of(i), y = line.y_of(i);
    return x >= margin && y >= margin && x < right && y < bottom;
  };
  while (range.first < range.last && !is_within(range.first)) ++range.first;
  while (range.first < range.last && !is_within(range.last - 1)) --range.last;
  return range;
}

template <class Sample>
void MovedRows::make_outside(std::uint32_t first, std::uint32_t last, Sample* row) const {
  const std::size_t channels = to_.shape.channels;
  std::array<Sample, 4> pixel{};
  points_.take_beside(pixel.data());
  for (std::size_t i = first; i < last; ++i)
    std::copy_n(pixel.begin(), channels, row + i * channels);
}

template <class Sample>
void MovedRows::make_inside(const PictureLine& line, PixelRange range, Sample* row) const {
  const auto most = static_cast<float>(old().full_scale);
  const std::size_t channels = to_.shape.channels;
  Sample* const out = row + range.first * channels;
  const std::size_t n = range.last - range.first;
  bicubic_line(points_.samples(), old().shape, line, range.first, n, most, channels,
               reinterpret_cast<std::byte*>(out));
  if (to_.alpha == AlphaKind::kNone) return;
  for (std::size_t i = 0; i < n; ++i)
    out[i * channels + channels - 1] = sample_of<Sample>(most, most);
}

}  // namespace chalcedony
