#include "core/select/cutout.h"

#include <algorithm>

#include "core/pixel/interleave.h"

namespace chalcedony {
namespace {

/// The values where pixels are selected, instead of what is there.
void lay_over(const std::uint8_t* selected, std::size_t n, const float* values, float* plane) {
  for (std::size_t i = 0; i < n; ++i) {
    const float value = values[i], rest = plane[i];
    plane[i] = selected[i] ? value : rest;
  }
}

}  // namespace

CutoutMaker::CutoutMaker(SampleType sample, CutoutRest rest, const Color& color)
    : sample_(sample), rest_(rest), planes_(4) {
  if (rest_ == CutoutRest::kColor) {
    const auto srgb = color.in(spaces::kSrgb);
    for (std::size_t c = 0; c < 3; ++c) color_[c] = static_cast<float>(srgb[c]);
  }
}

void CutoutMaker::write(const Block& block, const ConstPlanes& srgb, const ConstPlanes& ground,
                        const std::uint8_t* selected, std::byte* stored) {
  const std::size_t n = block.size;
  fill_rest(rest_ == CutoutRest::kPicture ? ground : srgb, n);
  for (std::size_t c = 0; c < 3; ++c) lay_over(selected, n, srgb[c], planes_.plane(c));
  float* const opacity = planes_.plane(3);
  const float other = rest_ == CutoutRest::kTransparent ? 0.0f : 1.0f;
  for (std::size_t i = 0; i < n; ++i) opacity[i] = selected[i] ? 1.0f : other;
  if (block.alpha)
    for (std::size_t i = 0; i < n; ++i) opacity[i] *= block.alpha[i];
  const SampleScale color = sample_scale(spaces::kSrgb, 0, sample_);
  write_planes(read_only(planes_.planes()), n, 4, sample_, {color, color, color}, stored);
  write_plane(opacity, n, 4, sample_, 3, share_scale(sample_), stored);
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
