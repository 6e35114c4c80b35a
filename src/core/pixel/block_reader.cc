#include "core/pixel/block_reader.h"

#include <algorithm>
#include <cmath>

#include "core/pixel/interleave.h"

namespace chalcedony {

BlockReader::BlockReader(const PictureInfo& info, Counting counting, bool wants_color)
    : info_(info),
      counting_(std::move(counting)),
      reads_color_(wants_color || info.is_float()),  // what is not finite does not count
      scale_(sample_scales(info)),
      planes_(4),
      counted_(kBlockPixels) {
  block_.picture_width = info.shape.width;
}

const Block& BlockReader::read(const std::byte* stored, std::uint64_t first_pixel,
                               std::size_t size) {
  block_.first_pixel = first_pixel;
  block_.size = size;
  block_.stored = stored;
  if (reads_color_) read_color();
  if (info_.alpha != AlphaKind::kNone) read_alpha();
  if (reads_color_ && info_.alpha == AlphaKind::kPremultiplied) undo_premultiplication();
  if (all_count()) {
    block_.counted = nullptr;
    block_.counted_size = size;
  } else {
    mark_counted();
  }
  return block_;
}

void BlockReader::read_color() {
  const Planes planes = planes_.planes();
  if (info_.bands) {
    for (std::size_t c = 0; c < 3; ++c)
      read_plane(block_.stored, info_.shape.channels, info_.shape.sample, info_.bands->of[c],
                 scale_[c], planes[c], block_.size);
    block_.color = read_only(planes);
  } else if (info_.color_channels() >= 3) {
    read_planes(block_.stored, info_.shape.channels, info_.shape.sample, scale_, planes,
                block_.size);
    block_.color = read_only(planes);
  } else {
    read_plane(block_.stored, info_.shape.channels, info_.shape.sample, 0, scale_[0], planes[0],
               block_.size);
    block_.color = {planes[0], planes[0], planes[0]};
  }
}

void BlockReader::read_alpha() {
  const SampleScale scale{1.0 / info_.full_scale, 0};
  read_plane(block_.stored, info_.shape.channels, info_.shape.sample, info_.shape.channels - 1,
             scale, planes_.plane(3), block_.size);
  block_.alpha = planes_.plane(3);
}

void BlockReader::undo_premultiplication() {
  const std::size_t planes = info_.color_channels() >= 3 ? 3 : 1;
  for (std::size_t c = 0; c < planes; ++c) {
    float* color = planes_.plane(c);
    for (std::size_t i = 0; i < block_.size; ++i)
      color[i] = block_.alpha[i] > 0 ? color[i] / block_.alpha[i] : 0.0f;
  }
}

bool BlockReader::all_count() const {
  const bool alpha_matters = block_.alpha != nullptr && !counting_.count_transparent;
  return counting_.everywhere() && !alpha_matters && !info_.is_float();
}

bool BlockReader::is_finite(std::size_t i) const {
  return std::all_of(block_.color.begin(), block_.color.end(),
                     [i](const float* plane) { return std::isfinite(plane[i]); });
}

void BlockReader::mark_counted() {
  const bool alpha_matters = block_.alpha != nullptr && !counting_.count_transparent;
  std::size_t counted = 0;
  std::uint32_t x = block_.x(0), y = block_.y(0);
  for (std::size_t i = 0; i < block_.size; ++i) {
    std::uint64_t* reason = nullptr;
    if (counting_.region && !counting_.region->contains(x, y)) {
      reason = &excluded_.outside_region;
    } else if (counting_.within && !counting_.within->at(block_.pixel(i))) {
      reason = &excluded_.outside_mask;
    } else if (alpha_matters && !(block_.alpha[i] > 0)) {
      reason = &excluded_.transparent;
    } else if (info_.is_float() && !is_finite(i)) {
      reason = &excluded_.not_finite;
    }
    counted_[i] = reason == nullptr;
    if (reason) {
      ++*reason;
    } else {
      ++counted;
    }
    if (++x == block_.picture_width) x = 0, ++y;
  }
  block_.counted = counted_.data();
  block_.counted_size = counted;
}

}  // namespace chalcedony
