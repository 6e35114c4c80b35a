#include "job/cutout.h"

#include <algorithm>

#include "core/pixel/interleave.h"

namespace chalcedony {

PictureSpec cutout_spec(const RasterShape& shape) {
  PictureSpec spec;
  const bool deep = shape.sample != SampleType::kU8;
  spec.shape = {shape.width, shape.height, 4, deep ? SampleType::kU16 : SampleType::kU8};
  spec.alpha = true;
  return spec;
}

CutoutMaker::CutoutMaker(const PictureSpec& spec, const CutoutOptions& options)
    : spec_(spec), rest_(options.rest), planes_(4) {
  if (rest_ == CutoutRest::kColor) {
    const auto srgb = options.color.in(spaces::kSrgb);
    for (std::size_t c = 0; c < 3; ++c) color_[c] = static_cast<float>(srgb[c]);
  }
}

void CutoutMaker::write(const Block& block, const ConstPlanes& srgb, const ConstPlanes& ground,
                        const std::uint8_t* selected, std::byte* stored) {
  fill_rest(rest_ == CutoutRest::kPicture ? ground : srgb, block.size);
  for (std::size_t c = 0; c < 3; ++c)
    for (std::size_t i = 0; i < block.size; ++i)
      planes_.plane(c)[i] = selected[i] ? srgb[c][i] : planes_.plane(c)[i];
  const float other = rest_ == CutoutRest::kTransparent ? 0.0f : 1.0f;
  for (std::size_t i = 0; i < block.size; ++i)
    planes_.plane(3)[i] = (selected[i] ? 1.0f : other) * (block.alpha ? block.alpha[i] : 1.0f);
  const SampleType sample = spec_.shape.sample;
  const SampleScale color = sample_scale(spaces::kSrgb, 0, sample);
  write_planes(read_only(planes_.planes()), block.size, 4, sample, {color, color, color}, stored);
  write_plane(planes_.plane(3), block.size, 4, sample, 3, {1.0 / full_scale_of(sample), 0}, stored);
}

const Block& CutoutMaker::on_white(const Block& block) {
  shown_ = block;
  shown_.color = read_only(planes_.planes());
  shown_.alpha = planes_.plane(3);
  return shown_;
}

void CutoutMaker::fill_rest(const ConstPlanes& srgb, std::size_t n) {
  constexpr float kDimmed = 0.3f;
  for (std::size_t c = 0; c < 3; ++c) {
    float* const plane = planes_.plane(c);
    if (rest_ == CutoutRest::kGray) {
      // The luma of ITU-R BT.709.
      for (std::size_t i = 0; i < n; ++i)
        plane[i] = 0.2126f * srgb[0][i] + 0.7152f * srgb[1][i] + 0.0722f * srgb[2][i];
    } else if (rest_ == CutoutRest::kDimmed) {
      for (std::size_t i = 0; i < n; ++i) plane[i] = kDimmed * srgb[c][i];
    } else if (rest_ == CutoutRest::kPicture) {
      std::copy_n(srgb[c], n, plane);
    } else {
      std::fill_n(plane, n, color_[c]);
    }
  }
}

}  // namespace chalcedony
