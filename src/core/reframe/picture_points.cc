#include "core/reframe/picture_points.h"

#include <algorithm>
#include <cmath>
#include <utility>

#include "core/reframe/bicubic_line.h"
#include "core/reframe/resampling.h"

namespace chalcedony {
namespace {

PictureInfo seen_info(const PictureInfo& info, const PointLook& look) {
  PictureInfo to = info;
  to.shape.channels = info.color_channels();
  to.alpha = AlphaKind::kNone;
  if (info.alpha != AlphaKind::kNone || (look.beside && !look.fill)) {
    to.alpha = AlphaKind::kStraight;
    ++to.shape.channels;
  }
  return to;
}

}  // namespace

PicturePoints::PicturePoints(std::unique_ptr<RowSource> source, const PictureInfo& info,
                             const PointLook& look)
    : source_(std::move(source)), from_(info), to_(seen_info(info, look)), look_(look) {
  if (!look.fill) return;
  const auto scales = sample_scales(info);
  for (std::size_t c = 0; c < 3; ++c)
    fill_[c] = static_cast<float>(((*look.fill)[c] - scales[c].offset) / scales[c].factor);
}

void PicturePoints::load() {
  if (!samples_.empty()) return;
  samples_.resize(from_.shape.row_bytes() * from_.shape.height +
                  kSamplesAfterPicture * bytes_per_sample(from_.shape.sample));
  source_->read_rows(from_.shape.height, samples_.data());
}

template <class Sample>
void PicturePoints::take(double x, double y, Sample* out) const {
  look_.nearest ? take_nearest(x, y, out) : take_bicubic(x, y, out);
}

template <class Sample>
void PicturePoints::take_beside(Sample* out) const {
  const auto most = static_cast<float>(from_.full_scale);
  const std::size_t channels = to_.shape.channels, colors = from_.color_channels();
  std::fill_n(out, channels, Sample{});
  if (!look_.fill) return;
  for (std::size_t c = 0; c < colors; ++c) out[c] = sample_of<Sample>(fill_[c], most);
  if (channels > colors) out[colors] = sample_of<Sample>(most, most);
}

template <class Sample>
void PicturePoints::take_nearest(double x, double y, Sample* out) const {
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
void PicturePoints::take_bicubic(double x, double y, Sample* out) const {
  const RasterShape& shape = from_.shape;
  const auto most = static_cast<float>(from_.full_scale);
  const std::uint32_t colors = from_.color_channels();
  const float fill_lends = look_.fill ? 1.0f : 0.0f;
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

template void PicturePoints::take(double, double, std::uint8_t*) const;
template void PicturePoints::take(double, double, std::uint16_t*) const;
template void PicturePoints::take(double, double, float*) const;
template void PicturePoints::take_beside(std::uint8_t*) const;
template void PicturePoints::take_beside(std::uint16_t*) const;
template void PicturePoints::take_beside(float*) const;

}  // namespace chalcedony
