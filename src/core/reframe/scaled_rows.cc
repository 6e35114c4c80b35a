#include "core/reframe/scaled_rows.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/pixel/isolated_loop.h"

namespace chalcedony {
namespace {

constexpr std::uint32_t kRowsAtOnce = 64;
constexpr float kNothingLent = 1e-4f;

PictureInfo scaled_info(PictureInfo info, const Scaling& scaling) {
  info.shape.width = scaling.width;
  info.shape.height = scaling.height;
  if (info.alpha != AlphaKind::kNone) info.alpha = AlphaKind::kStraight;
  return info;
}

}  // namespace

ScaledRows::ScaledRows(std::unique_ptr<RowSource> source, const PictureInfo& info,
                       const Scaling& scaling)
    : source_(std::move(source)),
      from_(info),
      writer_(scaled_info(info, scaling)),
      columns_(taps_along(info.shape.width, scaling.width, scaling.enlarging)),
      rows_(taps_along(info.shape.height, scaling.height, scaling.enlarging)),
      linear_light_(scaling.linear_light),
      to_light_(*info.space, spaces::kXyzD65),
      from_light_(spaces::kXyzD65, *info.space),
      colors_(info.color_channels() == 1 && !linear_light_ ? 1 : 3),
      planes_(colors_),
      weighs_(info.alpha != AlphaKind::kNone || info.is_float()),
      scratch_([this] { return Scratch(from_); }) {
  if (weighs_) ++planes_;
}

void ScaledRows::rewind() {
  source_->rewind();
  held_.clear();
  held_first_ = next_read_ = next_row_ = 0;
}

void ScaledRows::read_rows(std::uint32_t count, std::byte* rows) {
  while (count > 0) {
    const std::uint32_t some = rows_at_once(count);
    make_rows(some, rows);
    count -= some;
    rows += some * shape().row_bytes();
  }
}

/// As many of the next rows as need few rows of the source, but one at least.
std::uint32_t ScaledRows::rows_at_once(std::uint32_t most) const {
  std::uint32_t some = 1;
  while (some < std::min(most, kRowsAtOnce) &&
         rows_[next_row_ + some].first - rows_[next_row_].first < kRowsAtOnce)
    ++some;
  return some;
}

void ScaledRows::make_rows(std::uint32_t count, std::byte* rows) {
  std::uint32_t end = 0;
  for (std::uint32_t r = 0; r < count; ++r) {
    const Taps& taps = rows_[next_row_ + r];
    end = std::max(end, taps.first + static_cast<std::uint32_t>(taps.weights.size()));
  }
  // At a mirrored edge a row can begin before the one above it, by as much as the window reaches.
  std::uint32_t first = rows_[next_row_].first;
  for (std::uint32_t r = next_row_; r < rows_.size() && r < next_row_ + kRowsAtOnce; ++r)
    first = std::min(first, rows_[r].first);
  for (; held_first_ < first && !held_.empty(); ++held_first_) held_.pop_front();
  read_to(end);
  tbb::parallel_for(std::uint32_t{0}, count,
                    [&](std::uint32_t r) { down(next_row_ + r, rows + r * shape().row_bytes()); });
  next_row_ += count;
}

/// Holds the source's rows up to `end`.
void ScaledRows::read_to(std::uint32_t end) {
  while (next_read_ < end) {
    const std::uint32_t some = std::min(end - next_read_, kRowsAtOnce);
    const std::size_t row_bytes = from_.shape.row_bytes();
    stored_.resize(some * row_bytes);
    source_->read_rows(some, stored_.data());
    if (held_.empty()) held_first_ = next_read_;
    const std::size_t before = held_.size();
    held_.resize(before + some);
    isolated_loop(some, [&](std::uint32_t r) {
      held_[before + r] = across(stored_.data() + r * row_bytes, next_read_ + r);
    });
    next_read_ += some;
  }
}

ScaledRows::ScaledAcross ScaledRows::across(const std::byte* stored, std::uint32_t y) {
  Scratch& scratch = scratch_.local();
  read_planes_of(stored, y, scratch);
  const std::size_t width = columns_.size();
  ScaledAcross out(planes_ * width + kPlanePadding);
  for (std::size_t p = 0; p < planes_; ++p)
    columns_.run(scratch.row.data() + p * from_.shape.width, out.data() + p * width);
  return out;
}

/// A row of the source as planes to be averaged: colors times what they lend, and that.
void ScaledRows::read_planes_of(const std::byte* stored, std::uint32_t y, Scratch& scratch) const {
  const std::uint32_t width = from_.shape.width;
  scratch.row.resize(planes_ * width + kPlanePadding);
  const auto read = [&](const Block& block, std::uint32_t x) {
    ConstPlanes color = block.color;
    if (linear_light_) {
      to_light_.run(color, scratch.planes.planes(), block.size);
      color = read_only(scratch.planes.planes());
    }
    for (std::size_t c = 0; c < colors_; ++c) {
      float* const out = scratch.row.data() + c * width + x;
      std::copy_n(color[c], block.size, out);
      for (std::size_t i = 0; weighs_ && i < block.size; ++i)
        out[i] = block.counts(i) ? out[i] * block.lends(i) : 0.0f;
    }
    float* const lent = scratch.row.data() + colors_ * width + x;
    for (std::size_t i = 0; weighs_ && i < block.size; ++i) lent[i] = block.lends(i);
  };
  scratch.reader.for_each_block_of_row(stored, y, read);
}

void ScaledRows::down(std::uint32_t y, std::byte* stored) {
  const Taps& taps = rows_[y];
  std::vector<float> sums(planes_ * columns_.size());
  for (std::size_t t = 0; t < taps.weights.size(); ++t) {
    const float weight = taps.weights[t];
    const float* const row = held_[taps.first - held_first_ + t].data();
    for (std::size_t i = 0; i < sums.size(); ++i) sums[i] += weight * row[i];
  }
  write(sums, scratch_.local(), stored);
}

void ScaledRows::write(const std::vector<float>& sums, Scratch& scratch, std::byte* stored) const {
  const std::size_t width = columns_.size();
  for (std::size_t x = 0; x < width; x += kBlockPixels) {
    const std::size_t size = std::min(kBlockPixels, width - x);
    const float* const lent = weighs_ ? sums.data() + colors_ * width + x : nullptr;
    for (std::size_t c = 0; c < colors_; ++c) {
      const float* const sum = sums.data() + c * width + x;
      float* const out = scratch.planes.plane(c);
      for (std::size_t i = 0; i < size; ++i)
        out[i] = !lent                    ? sum[i]
                 : lent[i] > kNothingLent ? sum[i] / lent[i]
                                          : std::numeric_limits<float>::quiet_NaN();
    }
    float* const alpha = scratch.planes.plane(3);
    if (lent)
      for (std::size_t i = 0; i < size; ++i) alpha[i] = std::clamp(lent[i], 0.0f, 1.0f);
    const Planes planes = scratch.planes.planes();
    if (linear_light_) from_light_.run(read_only(planes), planes, size);
    writer_.write(read_only(planes), lent ? alpha : nullptr, size, stored);
    stored += size * shape().pixel_bytes();
  }
}

}  // namespace chalcedony
