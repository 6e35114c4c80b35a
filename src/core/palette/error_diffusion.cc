#include "core/palette/error_diffusion.h"

#include <algorithm>

namespace chalcedony {
namespace {

constexpr std::size_t kSteps = 4096;  // of linear light; fine enough for the cells of the table

}  // namespace

ErrorDiffusion::ErrorDiffusion(std::uint32_t width, const std::vector<Color>& palette,
                               DifferenceFormula formula)
    : width_(width), nearest_(palette, formula), own_(width), below_(width) {
  for (const Color& color : palette) {
    const auto linear = color.in(spaces::kSrgbLinear);
    colors_.push_back({static_cast<float>(linear[0]), static_cast<float>(linear[1]),
                       static_cast<float>(linear[2])});
  }
  for (std::size_t step = 0; step <= kSteps; ++step) {
    const double linear = 255 * static_cast<double>(step) / kSteps;
    const Color gray{&spaces::kSrgbLinear, {linear, linear, linear}};
    cells_.push_back(NearestColorTable::cell(static_cast<float>(gray.in(spaces::kSrgb)[0])));
  }
}

std::uint8_t ErrorDiffusion::nearest(const Light& linear) const {
  std::array<std::uint8_t, 3> cells;
  for (std::size_t c = 0; c < 3; ++c) {
    const float step = std::min(std::max(linear[c], 0.0f), 255.0f) * (kSteps / 255.0f);
    cells[c] = cells_[static_cast<std::size_t>(static_cast<int>(step + 0.5f))];
  }
  return nearest_.find(cells[0], cells[1], cells[2]);
}

void ErrorDiffusion::next_row(const ConstPlanes& linear, const std::uint8_t* counted,
                              std::uint8_t* numbers) {
  // What goes on to the next pixel, and what has come together so far for the pixels below the one
  // before and below this one. They stay in registers, since every pixel waits for the one before.
  Light ahead{}, below_before{}, below{};
  for (std::uint32_t step = 0; step < width_; ++step) {
    const std::size_t x = leftwards_ ? width_ - 1 - step : step;
    Light off{};
    numbers[x] = 0;
    if (!counted || counted[x]) {
      Light wanted;
      // An error that no color can make good must not grow without end.
      for (std::size_t c = 0; c < 3; ++c)
        wanted[c] = std::min(std::max(linear[c][x] + (own_[x][c] + ahead[c]), -128.0f), 383.0f);
      numbers[x] = nearest(wanted);
      const Light& color = colors_[numbers[x] - 1u];
      for (std::size_t c = 0; c < 3; ++c) off[c] = (wanted[c] - color[c]) / 16;
    }
    for (std::size_t c = 0; c < 3; ++c) {
      ahead[c] = 7 * off[c];
      if (step > 0) below_[leftwards_ ? x + 1 : x - 1][c] = below_before[c] + 3 * off[c];
      below_before[c] = below[c] + 5 * off[c];
      below[c] = off[c];
    }
  }
  if (width_ > 0) below_[leftwards_ ? 0 : width_ - 1] = below_before;
  std::swap(own_, below_);
  leftwards_ = !leftwards_;
}

}  // namespace chalcedony
