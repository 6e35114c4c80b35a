#include "core/reframe/turned_rows.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <type_traits>

#include "core/pixel/isolated_loop.h"
#include "core/reframe/resampling.h"

namespace chalcedony {
namespace {

double radians(double degrees) { return degrees * std::numbers::pi / 180; }

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

template <class Sample>
Sample stored(float value, float most) {
  if constexpr (std::is_floating_point_v<Sample>) {
    return value;
  } else {
    return static_cast<Sample>(std::clamp(value, 0.0f, most) + 0.5f);
  }
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
  samples_.resize(from_.shape.row_bytes() * from_.shape.height);
  source_->read_rows(from_.shape.height, samples_.data());
}

void TurnedRows::read_rows(std::uint32_t count, std::byte* rows) {
  if (samples_.empty()) load();
  const auto make = [&](std::uint32_t r) {
    std::byte* const row = rows + r * to_.shape.row_bytes();
    switch (to_.shape.sample) {
      case SampleType::kU8:
        return make_row(next_row_ + r, reinterpret_cast<std::uint8_t*>(row));
      case SampleType::kU16:
        return make_row(next_row_ + r, reinterpret_cast<std::uint16_t*>(row));
      case SampleType::kF32:
        return make_row(next_row_ + r, reinterpret_cast<float*>(row));
    }
  };
  isolated_loop(count, make);
  next_row_ += count;
}

/// Each new pixel's center is turned back to where it lies in the old picture.
template <class Sample>
void TurnedRows::make_row(std::uint32_t y, Sample* out) const {
  const double down = y + 0.5 - to_.shape.height / 2.0;
  for (std::uint32_t x = 0; x < to_.shape.width; ++x, out += to_.shape.channels) {
    const double across = x + 0.5 - to_.shape.width / 2.0;
    const double old_x = across * cosine_ + down * sine_ + from_.shape.width / 2.0;
    const double old_y = down * cosine_ - across * sine_ + from_.shape.height / 2.0;
    if (turn_.nearest) {
      take_nearest(old_x, old_y, out);
    } else {
      take_bicubic(old_x, old_y, out);
    }
  }
}

template <class Sample>
void TurnedRows::take_nearest(double x, double y, Sample* out) const {
  const RasterShape& shape = from_.shape;
  const bool inside = x >= 0 && y >= 0 && x < shape.width && y < shape.height;
  const auto* const old = reinterpret_cast<const Sample*>(samples_.data());
  const std::size_t pixel =
      inside ? static_cast<std::size_t>(y) * shape.width + static_cast<std::size_t>(x) : 0;
  for (std::uint32_t c = 0; c < to_.shape.channels; ++c)
    out[c] = inside ? old[pixel * shape.channels + c] : Sample{0};
}

/// All sixteen pixels lie inside and are opaque, as nearly everywhere.
template <class Sample>
void TurnedRows::take_inside(std::size_t first, const std::array<float, 4>& across,
                             const std::array<float, 4>& down, Sample* out) const {
  const std::size_t channels = from_.shape.channels;
  const auto* row = reinterpret_cast<const Sample*>(samples_.data()) + first * channels;
  std::array<float, 3> sum{};
  for (std::size_t j = 0; j < 4; ++j, row += from_.shape.width * channels) {
    for (std::size_t c = 0; c < channels; ++c) {
      const Sample* const at = row + c;
      sum[c] += down[j] * (across[0] * static_cast<float>(at[0]) +
                           across[1] * static_cast<float>(at[channels]) +
                           across[2] * static_cast<float>(at[2 * channels]) +
                           across[3] * static_cast<float>(at[3 * channels]));
    }
  }
  const auto most = static_cast<float>(from_.full_scale);
  for (std::size_t c = 0; c < channels; ++c) out[c] = stored<Sample>(sum[c], most);
  if (to_.alpha != AlphaKind::kNone) out[channels] = stored<Sample>(most, most);
}

template <class Sample>
void TurnedRows::take_bicubic(double x, double y, Sample* out) const {
  const RasterShape& shape = from_.shape;
  const auto most = static_cast<float>(from_.full_scale);
  const double left = std::floor(x - 0.5), top = std::floor(y - 0.5);
  const auto across = bicubic_weights(x - 0.5 - left), down = bicubic_weights(y - 0.5 - top);
  if (from_.alpha == AlphaKind::kNone && left >= 1 && top >= 1 && left + 2 < shape.width &&
      top + 2 < shape.height) {
    const auto first =
        static_cast<std::size_t>(top - 1) * shape.width + static_cast<std::size_t>(left - 1);
    return take_inside(first, across, down, out);
  }
  const std::uint32_t colors = from_.color_channels();
  const float fill_lends = turn_.fill ? 1.0f : 0.0f;
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
    out[c] = lent > 1e-4f ? stored<Sample>(sum[c] / lent, most) : Sample{0};
  if (to_.alpha != AlphaKind::kNone)
    out[colors] = stored<Sample>(std::clamp(lent, 0.0f, 1.0f) * most, most);
}

}  // namespace chalcedony
