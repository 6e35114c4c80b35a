#include "core/pixel/profiled_rows.h"

#include "core/pixel/isolated_loop.h"

namespace chalcedony {
namespace {

PictureInfo profiled_info(PictureInfo info) {
  info.shape.sample = SampleType::kF32;
  info.full_scale = 1;
  info.space = &spaces::kSrgb;
  if (info.alpha != AlphaKind::kNone) info.alpha = AlphaKind::kStraight;
  return info;
}

}  // namespace

ProfiledRows::ProfiledRows(std::unique_ptr<RowSource> source, const PictureInfo& info,
                           const RgbProfile& profile)
    : source_(std::move(source)),
      from_(info),
      writer_(profiled_info(info)),
      gray_(info.color_channels() == 1),
      to_xyz_(then(scale(1 / 255.0), profile.to_xyz_d50)),
      to_srgb_(spaces::kXyzD50, spaces::kSrgb),
      scratch_([this] { return Scratch(from_); }) {
  from_.space = &spaces::kSrgb;  // samples are read as 0-255, whatever they mean
  for (std::size_t c = 0; c < (gray_ ? 1u : 3u); ++c)
    curves_.emplace_back([&](double x) { return profile.curves[c].at(x); }, 0, 255);
  if (!gray_) return;
  const auto white = xyz_of(kD50);
  to_xyz_ = scale(white[0] / 255, white[1] / 255, white[2] / 255);
}

void ProfiledRows::read_rows(std::uint32_t count, std::byte* rows) {
  const std::size_t row_bytes = from_.shape.row_bytes();
  stored_.resize(count * row_bytes);
  source_->read_rows(count, stored_.data());
  isolated_loop(count, [&](std::uint32_t r) {
    convert_row(stored_.data() + r * row_bytes, next_row_ + r, rows + r * shape().row_bytes());
  });
  next_row_ += count;
}

void ProfiledRows::convert_row(const std::byte* stored, std::uint32_t y, std::byte* row) {
  Scratch& scratch = scratch_.local();
  const Planes planes = scratch.planes.planes();
  scratch.reader.for_each_block_of_row(stored, y, [&](const Block& block, std::uint32_t) {
    for (std::size_t c = 0; c < 3; ++c)
      curves_[gray_ ? 0 : c].apply(block.color[c], planes[c], block.size);
    apply_affine(to_xyz_, read_only(planes), planes, block.size);
    to_srgb_.run(read_only(planes), planes, block.size);
    writer_.write(read_only(planes), block.alpha, block.size, row);
    row += block.size * shape().pixel_bytes();
  });
}

}  // namespace chalcedony
