#include "core/pixel/thumbnail.h"

#include <algorithm>
#include <cmath>

namespace chalcedony {

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
  sums_.resize(std::size_t{4} * cells_wide_ * cells_high_);
}

void ThumbnailSums::add(const Block& block, const ConstPlanes& srgb) {
  std::uint32_t x = block.x(0), y = block.y(0);
  const auto row_of = [&](std::uint32_t line) {
    const auto cell =
        std::min(cells_high_ - 1, static_cast<std::uint32_t>(line / pixels_per_cell_));
    return sums_.data() + std::size_t{4} * cell * cells_wide_;
  };
  float* row = row_of(y);
  for (std::size_t i = 0; i < block.size; ++i) {
    float* cell = row + std::size_t{4} * cell_of_column_[x];
    const float alpha = block.alpha ? block.alpha[i] : 1.0f;
    for (std::size_t c = 0; c < 3; ++c) {
      const float v = std::min(std::max(srgb[c][i], 0.0f), 255.0f);  // NaN becomes 0
      cell[c] += v * alpha + 255.0f * (1.0f - alpha);
    }
    cell[3] += 1.0f;
    if (++x == block.picture_width) {
      x = 0;
      row = row_of(++y);
    }
  }
}

void ThumbnailSums::merge(const ThumbnailSums& other) {
  for (std::size_t i = 0; i < sums_.size(); ++i) sums_[i] += other.sums_[i];
}

Thumbnail ThumbnailSums::thumbnail() const {
  Thumbnail out{cells_wide_, cells_high_, pixels_per_cell_, {}};
  out.rgb.reserve(std::size_t{3} * cells_wide_ * cells_high_);
  for (std::size_t i = 0; i < sums_.size(); i += 4)
    for (std::size_t c = 0; c < 3; ++c)
      out.rgb.push_back(static_cast<std::uint8_t>(
          std::lround(sums_[i + 3] > 0 ? sums_[i + c] / sums_[i + 3] : 255.0f)));
  return out;
}

}  // namespace chalcedony
