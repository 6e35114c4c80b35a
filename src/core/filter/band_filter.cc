#include "core/filter/band_filter.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/filter/extreme.h"
#include "core/filter/mean.h"
#include "core/filter/median.h"
#include "core/pixel/mirrored.h"

namespace chalcedony {
namespace {

constexpr float kNaN = std::numeric_limits<float>::quiet_NaN();

bool is_opening_or_closing(FilterKind kind) {
  return kind == FilterKind::kOpening || kind == FilterKind::kClosing;
}

/// What each pixel of a Block lends; whether that is 1 everywhere.
bool find_weights(const Block& block, float* weights) {
  if (!block.counted && !block.alpha) {
    std::fill_n(weights, block.size, 1.0f);
    return true;
  }
  bool all = true;
  for (std::size_t i = 0; i < block.size; ++i) {
    weights[i] = block.lends(i);
    all = all && weights[i] == 1.0f;
  }
  return all;
}

/// Filtered values where a pixel counts and something was lent to it, else what was there. Without
/// branches, so that compilers make vectors of it.
void keep_unfiltered(const Block& block, const float* before, const float* filtered, float* out) {
  constexpr float kLargest = std::numeric_limits<float>::max();
  for (std::size_t i = 0; i < block.size; ++i) {
    const float old = before[i], value = filtered[i];
    out[i] = std::abs(value) <= kLargest ? value : old;
  }
  if (!block.counted) return;
  for (std::size_t i = 0; i < block.size; ++i)
    if (!block.counted[i]) out[i] = before[i];
}

std::vector<float> gaussian_of(const Filter& filter) {
  return filter.kind == FilterKind::kGaussian ? gaussian_weights(filter.element.radius)
                                              : std::vector<float>{};
}

}  // namespace

std::uint32_t halo_of(const Filter& filter) {
  if (filter.kind == FilterKind::kGaussian)
    return static_cast<std::uint32_t>(gaussian_of(filter).size() - 1);
  const auto reach = static_cast<std::uint32_t>(Window(filter.element).reach());
  return is_opening_or_closing(filter.kind) ? 2 * reach : reach;
}

BandFilter::BandFilter(const PictureInfo& info, Counting counting, const Filter& filter,
                       const BlockWriter& stored)
    : info_(info),
      filter_(filter),
      window_(filter.element),
      gaussian_(gaussian_of(filter)),
      halo_(halo_of(filter)),
      stored_(stored),
      reader_(info, std::move(counting)),
      channels_(info.color_channels() == 1 ? 1 : 3) {}

void BandFilter::run(const Band& band, std::byte* rows) {
  read(band);
  for (std::size_t c = 0; c < channels_; ++c) filter_channel(c);
  write(band, rows);
}

Excluded BandFilter::take_excluded() { return reader_.take_excluded(); }

void BandFilter::read(const Band& band) {
  const std::size_t width = info_.shape.width + 2 * halo_, lines = band.rows() + 2 * halo_;
  for (std::size_t c = 0; c < channels_; ++c) values_[c].resize(width, lines);
  weights_.resize(width, lines);
  all_lend_ = true;
  for (std::size_t line = 0; line < lines; ++line)
    read_row(band,
             static_cast<std::int64_t>(band.first_row() + line) - static_cast<std::int64_t>(halo_),
             line);
  reader_.take_excluded();  // the halo is counted where it is a band's own
}

void BandFilter::read_row(const Band& band, std::int64_t y, std::size_t line) {
  const std::uint32_t width = info_.shape.width, row = mirrored(y, info_.shape.height);
  reader_.for_each_block_of_row(band.row(row), row, [&](const Block& block, std::uint32_t x) {
    float* const weights = weights_.row(line) + halo_ + x;
    const bool all_lend = find_weights(block, weights);
    all_lend_ = all_lend_ && all_lend;
    for (std::size_t c = 0; c < channels_; ++c) {
      float* const values = values_[c].row(line) + halo_ + x;
      if (all_lend) {
        std::copy_n(block.color[c], block.size, values);
        continue;
      }
      for (std::size_t i = 0; i < block.size; ++i)
        values[i] = weights[i] > 0 ? block.color[c][i] : kNaN;
    }
  });
  mirror_sides(weights_.row(line), width, halo_);
  for (std::size_t c = 0; c < channels_; ++c) mirror_sides(values_[c].row(line), width, halo_);
}

void BandFilter::filter_channel(std::size_t c) {
  const Tile& values = values_[c];
  Tile& out = filtered_[c];
  out.resize(info_.shape.width, values.height() - 2 * halo_);
  const Tile* const weights = all_lend_ ? nullptr : &weights_;
  switch (filter_.kind) {
    case FilterKind::kMean:
      return window_mean(values, weights, window_, out);
    case FilterKind::kGaussian:
      return gaussian_mean(values, weights, gaussian_, out);
    case FilterKind::kMedian:
      return window_median(values, window_, out);
    case FilterKind::kMinimum:
      return extreme(values, Extreme::kLeast, 0, out);
    case FilterKind::kMaximum:
      return extreme(values, Extreme::kGreatest, 0, out);
    case FilterKind::kOpening:
    case FilterKind::kClosing:
      break;
  }
  const bool opening = filter_.kind == FilterKind::kOpening;
  const std::size_t margin = halo_ / 2;
  Tile once(out.width() + 2 * margin, out.height() + 2 * margin);
  extreme(values, opening ? Extreme::kLeast : Extreme::kGreatest, 0, once);
  extreme(once, opening ? Extreme::kGreatest : Extreme::kLeast, margin, out);
}

/// `margin` is how far inside the band's tile the values begin.
void BandFilter::extreme(const Tile& values, Extreme which, std::size_t margin, Tile& out) {
  if (all_lend_) return window_extreme(values, which, window_, out);
  Tile present = values;
  for (std::size_t y = 0; y < values.height(); ++y)
    for (std::size_t x = 0; x < values.width(); ++x)
      if (!(weights_.row(y + margin)[x + margin] > 0)) present.row(y)[x] = absent_from(which);
  window_extreme(present, which, window_, out);
}

void BandFilter::write(const Band& band, std::byte* rows) {
  for (std::uint32_t y = 0; y < band.rows(); ++y) {
    const std::uint32_t row = band.first_row() + y;
    reader_.for_each_block_of_row(band.row(row), row, [&](const Block& block, std::uint32_t x) {
      for (std::size_t c = 0; c < channels_; ++c)
        keep_unfiltered(block, block.color[c], filtered_[c].row(y) + x, planes_.plane(c));
      stored_.write(read_only(planes_.planes()), block.alpha, block.size, rows);
      rows += block.size * stored_.info().shape.pixel_bytes();
    });
  }
}

}  // namespace chalcedony
