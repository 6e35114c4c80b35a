#include "core/pixel/thumbnail.h"

#include <algorithm>
#include <cmath>

#include "core/pixel/row_parts.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/pixel/thumbnail.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/vector_row-inl.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// Adds values, brought into 0-255, to sums; what is not a number as 0. With alpha, over white.
void add_shown(const float* HWY_RESTRICT values, const float* HWY_RESTRICT alpha, std::size_t n,
               float* HWY_RESTRICT sums) {
  over_row(n, [&](auto d, std::size_t i) HWY_ATTR {
    const auto white = hn::Set(d, 255.0f), one = hn::Set(d, 1.0f);
    // Of what is not a number the second is taken.
    auto value = hn::Min(hn::Max(hn::LoadU(d, values + i), hn::Zero(d)), white);
    if (alpha) {
      const auto share = hn::LoadU(d, alpha + i);
      value = hn::Add(hn::Mul(value, share), hn::Mul(white, hn::Sub(one, share)));
    }
    hn::StoreU(hn::Add(hn::LoadU(d, sums + i), value), d, sums + i);
  });
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {

HWY_EXPORT(add_shown);

ThumbnailSums::ThumbnailSums(std::uint32_t width, std::uint32_t height, std::uint32_t most_width,
                             std::uint32_t most_height) {
  pixels_per_cell_ = std::max(
      {1.0, static_cast<double>(width) / most_width, static_cast<double>(height) / most_height});
  const auto cells = [&](std::uint32_t pixels) {
    return std::max(1u, static_cast<std::uint32_t>(std::ceil(pixels / pixels_per_cell_ - 1e-9)));
  };
  cells_wide_ = cells(width);
  cells_high_ = cells(height);
  for (std::uint32_t x = 0; x < width; ++x)
    cell_of_column_.push_back(
        std::min(cells_wide_ - 1, static_cast<std::uint32_t>(x / pixels_per_cell_)));
  cells_ = std::make_shared<Cells>();
  cells_->sums.resize(std::size_t{4} * cells_wide_ * cells_high_);
  columns_.resize(std::size_t{4} * width);
  empty_columns();
}

std::size_t ThumbnailSums::cell_row_of(std::uint32_t y) const {
  return std::min(cells_high_ - 1, static_cast<std::uint32_t>(y / pixels_per_cell_));
}

void ThumbnailSums::add(const Block& block, const ConstPlanes& srgb) {
  for_each_row_part(block, [&](std::size_t i, std::size_t n, std::uint32_t x, std::uint32_t y) {
    if (const std::size_t row = cell_row_of(y); row != cell_row_) {
      add_columns_to(*cells_);
      empty_columns();
      cell_row_ = row;
    }
    first_column_ = std::min(first_column_, x);
    end_column_ = std::max(end_column_, x + static_cast<std::uint32_t>(n));
    add_to_columns(block, srgb, i, n, x);
  });
}

/// n pixels of one row, from column x on.
void ThumbnailSums::add_to_columns(const Block& block, const ConstPlanes& srgb, std::size_t first,
                                   std::size_t n, std::uint32_t x) {
  const std::size_t width = cell_of_column_.size();
  const float* const alpha = block.alpha ? block.alpha + first : nullptr;
  const auto add = HWY_DYNAMIC_DISPATCH(add_shown);
  for (std::size_t c = 0; c < 3; ++c)
    add(srgb[c] + first, alpha, n, columns_.data() + c * width + x);
  float* const weight = columns_.data() + 3 * width + x;
  for (std::size_t i = 0; i < n; ++i) weight[i] += 1.0f;
}

void ThumbnailSums::add_columns_to(Cells& cells) const {
  const std::size_t width = cell_of_column_.size();
  const std::lock_guard lock(cells.mutex);
  float* const row = cells.sums.data() + std::size_t{4} * cell_row_ * cells_wide_;
  for (std::uint32_t x = first_column_; x < end_column_; ++x)
    for (std::size_t c = 0; c < 4; ++c)
      row[std::size_t{4} * cell_of_column_[x] + c] += columns_[c * width + x];
}

void ThumbnailSums::empty_columns() {
  std::fill(columns_.begin(), columns_.end(), 0.0f);
  first_column_ = static_cast<std::uint32_t>(cell_of_column_.size());
  end_column_ = 0;
}

void ThumbnailSums::merge(const ThumbnailSums& other) {
  if (other.cells_ != cells_)
    for (std::size_t i = 0; i < cells_->sums.size(); ++i) cells_->sums[i] += other.cells_->sums[i];
  other.add_columns_to(*cells_);
}

Thumbnail ThumbnailSums::thumbnail() {
  add_columns_to(*cells_);
  empty_columns();
  Thumbnail out{cells_wide_, cells_high_, pixels_per_cell_, {}};
  out.rgb.reserve(std::size_t{3} * cells_wide_ * cells_high_);
  const std::vector<float>& sums = cells_->sums;
  for (std::size_t i = 0; i < sums.size(); i += 4)
    for (std::size_t c = 0; c < 3; ++c)
      out.rgb.push_back(static_cast<std::uint8_t>(
          std::lround(sums[i + 3] > 0 ? sums[i + c] / sums[i + 3] : 255.0f)));
  return out;
}

}  // namespace chalcedony
#endif
