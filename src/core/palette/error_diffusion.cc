#include "core/palette/error_diffusion.h"

#include <algorithm>

namespace chalcedony {
namespace {

constexpr std::size_t kSteps = 4096;  // of linear light; fine enough for the cells of the table

}  // namespace

ErrorDiffusion::ErrorDiffusion(std::uint32_t width, const std::vector<Color>& palette,
                               DifferenceFormula formula)
    : width_(width), nearest_(palette, formula), own_(width + 2u), below_(width + 2u) {
  for (const Color& color : palette) {
    const auto linear = color.in(spaces::kSrgbLinear);
    colors_.push_back({static_cast<float>(linear[0]), static_cast<float>(linear[1]),
                       static_cast<float>(linear[2])});
  }
  for (std::size_t step = 0; step <= kSteps; ++step) {
    const double linear = 255 * static_cast<double>(step) / kSteps;
    const Color gray{&spaces::kSrgbLinear, {linear, linear, linear}};
    encoded_.push_back(static_cast<float>(gray.in(spaces::kSrgb)[0]));
  }
}

float ErrorDiffusion::encoded(float linear) const {
  const float step = std::clamp(linear, 0.0f, 255.0f) * (kSteps / 255.0f);
  return encoded_[static_cast<std::size_t>(step + 0.5f)];
}

void ErrorDiffusion::next_row(const ConstPlanes& linear, const std::uint8_t* counted,
                              std::uint8_t* numbers) {
  std::fill(below_.begin(), below_.end(), std::array<float, 3>{});
  for (std::uint32_t step = 0; step < width_; ++step) {
    const std::size_t x = leftwards_ ? width_ - 1 - step : step;
    if (counted && !counted[x]) {
      numbers[x] = 0;
      continue;
    }
    std::array<float, 3> wanted;
    // An error that no color can make good must not grow without end.
    for (std::size_t c = 0; c < 3; ++c)
      wanted[c] = std::clamp(linear[c][x] + own_[x + 1][c], -128.0f, 383.0f);
    numbers[x] = nearest_.find(encoded(wanted[0]), encoded(wanted[1]), encoded(wanted[2]));
    const auto& color = colors_[numbers[x] - 1u];
    const std::size_t ahead = leftwards_ ? x : x + 2, behind = leftwards_ ? x + 2 : x;
    for (std::size_t c = 0; c < 3; ++c) {
      const float off = (wanted[c] - color[c]) / 16;
      own_[ahead][c] += 7 * off;
      below_[behind][c] += 3 * off;
      below_[x + 1][c] += 5 * off;
      below_[ahead][c] += off;
    }
  }
  std::swap(own_, below_);
  leftwards_ = !leftwards_;
}

}  // namespace chalcedony
