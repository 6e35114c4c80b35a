#include "core/reframe/turned_rows.h"

#include <algorithm>
#include <cmath>

#include "core/degrees.h"
#include "core/pixel/isolated_loop.h"
#include "core/reframe/resampling.h"

namespace chalcedony {
namespace {

PictureInfo turned_info(const PictureInfo& info, const Turn& turn) {
  PictureInfo to = info;
  to.shape = turned_shape(info.shape, turn.degrees);
  to.shape.channels = info.color_channels();
  to.alpha = AlphaKind::kNone;
  if (info.alpha != AlphaKind::kNone || !turn.fill) {
    to.alpha = AlphaKind::kStraight;
    ++to.shape.channels;
  }
  return to;
}

}  // namespace

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

TurnedRows::TurnedRows(std::unique_ptr<RowSource> source, const PictureInfo& info, const Turn& turn)
    : source_(std::move(source)),
      from_(info),
      to_(turned_info(info, turn)),
      turn_(turn),
      cosine_(std::cos(radians(turn.degrees))),
      sine_(std::sin(radians(turn.degrees))) {
  if (!turn.fill) return;
  const auto scales = sample_scales(info);
  for (std::size_t c = 0; c < 3; ++c)
    fill_[c] = static_cast<float>(((*turn.fill)[c] - scales[c].offset) / scales[c].factor);
}

void TurnedRows::load() {
  samples_.resize(from_.shape.row_bytes() * from_.shape.height +
                  kSamplesAfterPicture * bytes_per_sample(from_.shape.sample));
  source_->read_rows(from_.shape.height, samples_.data());
}

void TurnedRows::read_rows(std::uint32_t count, std::byte* rows) {
  if (samples_.empty()) load();
  const auto make = [&](std::uint32_t r) {
    std::byte* const row = rows + r * to_.shape.row_bytes();
    with_sample(to_.shape.sample, [&]<class Sample>(Sample) {
      make_row(next_row_ + r, reinterpret_cast<Sample*>(row));
    });
  };
  isolated_loop(count, make);
  next_row_ += count;
}

/// The new pixels of row y lie along a line in the old picture.
PictureLine TurnedRows::line_of_row(std::uint32_t y) const {
  const double down = y + 0.5 - to_.shape.height / 2.0, across = 0.5 - to_.shape.width / 2.0;
  return {across * cosine_ + down * sine_ + (from_.shape.width - 1) / 2.0,
          down * cosine_ - across * sine_ + (from_.shape.height - 1) / 2.0, cosine_, -sine_};
}

template <class Sample>
void TurnedRows::make_row(std::uint32_t y, Sample* out) const {
  const PictureLine line = line_of_row(y);
  const std::uint32_t width = to_.shape.width;
  const auto make = [&](std::uint32_t first, std::uint32_t last) {
    for (std::uint32_t x = first; x < last; ++x) {
      Sample* const pixel = out + std::size_t{x} * to_.shape.channels;
      turn_.nearest ? take_nearest(line.x_of(x), line.y_of(x), pixel)
                    : take_bicubic(line.x_of(x), line.y_of(x), pixel);
    }
  };
  if (turn_.nearest || from_.alpha != AlphaKind::kNone) return make(0, width);
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
TurnedRows::PixelRange TurnedRows::pixels_within(const PictureLine& line, double margin,
                                                 PixelRange range) const {
  const double right = from_.shape.width - 1 - margin, bottom = from_.shape.height - 1 - margin;
  const auto is_within = [&](std::uint32_t i) {
    const double x = line.x_of(i), y = line.y_of(i);
    return x >= margin && y >= margin && x < right && y < bottom;
  };
  while (range.first < range.last && !is_within(range.first)) ++range.first;
  while (range.first < range.last && !is_within(range.last - 1)) --range.last;
  return range;
}

template <class Sample>
void TurnedRows::make_outside(std::uint32_t first, std::uint32_t last, Sample* row) const {
  const auto most = static_cast<float>(from_.full_scale);
  const std::size_t channels = to_.shape.channels, colors = from_.color_channels();
  std::array<Sample, 4> pixel{};
  if (turn_.fill) {
    for (std::size_t c = 0; c < colors; ++c) pixel[c] = sample_of<Sample>(fill_[c], most);
    if (channels > colors) pixel[colors] = sample_of<Sample>(most, most);
  }
  for (std::size_t i = first; i < last; ++i)
    std::copy_n(pixel.begin(), channels, row + i * channels);
}

template <class Sample>
void TurnedRows::make_inside(const PictureLine& line, PixelRange range, Sample* row) const {
  const auto most = static_cast<float>(from_.full_scale);
  const std::size_t channels = to_.shape.channels;
  Sample* const out = row + range.first * channels;
  const std::size_t n = range.last - range.first;
  bicubic_line(samples_.data(), from_.shape, line, range.first, n, most, channels,
               reinterpret_cast<std::byte*>(out));
  if (to_.alpha == AlphaKind::kNone) return;
  for (std::size_t i = 0; i < n; ++i)
    out[i * channels + channels - 1] = sample_of<Sample>(most, most);
}

template <class Sample>
void TurnedRows::take_nearest(double x, double y, Sample* out) const {
  const RasterShape& shape = from_.shape;
  x += 0.5;
  y += 0.5;
  const bool inside = x >= 0 && y >= 0 && x < shape.width && y < shape.height;
  const auto* const old = reinterpret_cast<const Sample*>(samples_.data());
  const std::size_t pixel =
      inside ? static_cast<std::size_t>(y) * shape.width + static_cast<std::size_t>(x) : 0;
  for (std::uint32_t c = 0; c < to_.shape.channels; ++c)
    out[c] = inside ? old[pixel * shape.channels + c] : Sample{0};
}

template <class Sample>
void TurnedRows::take_bicubic(double x, double y, Sample* out) const {
  const RasterShape& shape = from_.shape;
  const auto most = static_cast<float>(from_.full_scale);
  const std::uint32_t colors = from_.color_channels();
  const float fill_lends = turn_.fill ? 1.0f : 0.0f;
  const double left = std::floor(x), top = std::floor(y);
  const auto across = bicubic_weights(x - left), down = bicubic_weights(y - top);
  std::array<float, 3> sum{};
  float lent = 0;
  for (int j = 0; j < 4; ++j) {
    const std::int64_t row = static_cast<std::int64_t>(top) + j - 1;
    for (int i = 0; i < 4; ++i) {
      const std::int64_t column = static_cast<std::int64_t>(left) + i - 1;
      const float weight = across[static_cast<std::size_t>(i)] * down[static_cast<std::size_t>(j)];
      const bool inside = row >= 0 && column >= 0 && row < shape.height && column < shape.width;
      if (!inside) {
        for (std::uint32_t c = 0; c < colors; ++c) sum[c] += weight * fill_lends * fill_[c];
        lent += weight * fill_lends;
        continue;
      }
      const auto* const old =
          reinterpret_cast<const Sample*>(samples_.data()) +
          (static_cast<std::size_t>(row) * shape.width + static_cast<std::size_t>(column)) *
              shape.channels;
      const float alpha = from_.alpha == AlphaKind::kNone
                              ? 1.0f
                              : static_cast<float>(old[shape.channels - 1]) / most;
      // A premultiplied color is already what the pixel lends.
      const float lends = weight * (from_.alpha == AlphaKind::kPremultiplied ? 1.0f : alpha);
      for (std::uint32_t c = 0; c < colors; ++c) sum[c] += lends * static_cast<float>(old[c]);
      lent += weight * alpha;
    }
  }
  for (std::uint32_t c = 0; c < colors; ++c)
    out[c] = lent > 1e-4f ? sample_of<Sample>(sum[c] / lent, most) : Sample{0};
  if (to_.alpha != AlphaKind::kNone)
    out[colors] = sample_of<Sample>(std::clamp(lent, 0.0f, 1.0f) * most, most);
}

}  // namespace chalcedony
