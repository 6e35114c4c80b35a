#include "core/pixel/profiled_rows.h"

#include <tbb/parallel_for.h>
#include <tbb/task_arena.h>

#include <algorithm>

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
      scratch_(from_) {
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
  // Isolated, so that a thread that waits here does not start on a band instead.
  tbb::this_task_arena::isolate([&] {
    tbb::parallel_for(std::uint32_t{0}, count, [&](std::uint32_t r) {
      convert_row(stored_.data() + r * row_bytes, next_row_ + r, rows + r * shape().row_bytes());
    });
  });
  next_row_ += count;
}

void ProfiledRows::convert_row(const std::byte* stored, std::uint32_t y, std::byte* row) {
  Scratch& scratch = scratch_.local();
  const std::uint32_t width = from_.shape.width;
  for (std::uint32_t x = 0; x < width; x += kBlockPixels) {
    const std::size_t size = std::min<std::size_t>(kBlockPixels, width - x);
    const Block& block = scratch.reader.read(stored + x * from_.shape.pixel_bytes(),
                                             std::uint64_t{y} * width + x, size);
    const Planes planes = scratch.planes.planes();
    for (std::size_t c = 0; c < 3; ++c)
      curves_[gray_ ? 0 : c].apply(block.color[c], planes[c], size);
    apply_affine(to_xyz_, read_only(planes), planes, size);
    to_srgb_.run(read_only(planes), planes, size);
    writer_.write(read_only(planes), block.alpha, size, row);
    row += size * shape().pixel_bytes();
  }
}

}  // namespace chalcedony
