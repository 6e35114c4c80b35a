#include "core/palette/nearest_color.h"

#include "core/color/conversion.h"

namespace chalcedony {

NearestColor::NearestColor(const std::vector<Color>& palette, DifferenceFormula formula)
    : formula_(formula), buffer_(2) {
  for (const Color& color : palette) colors_.push_back(color.in(space_of(formula)));
}

void NearestColor::find(const ConstPlanes& values, std::size_t n, std::uint8_t* numbers) {
  float* const best = buffer_.plane(0);
  float* const here = buffer_.plane(1);
  for (std::size_t k = 0; k < colors_.size(); ++k) {
    differences_to(formula_, colors_[k], values, n, here);
    const auto number = static_cast<std::uint8_t>(k + 1);
    for (std::size_t i = 0; i < n; ++i) {
      const bool better = k == 0 || here[i] < best[i];
      best[i] = better ? here[i] : best[i];
      numbers[i] = better ? number : numbers[i];
    }
  }
}

NearestColorTable::NearestColorTable(const std::vector<Color>& palette, DifferenceFormula formula)
    : numbers_(kCells * kCells * kCells) {
  static_assert(kCells * kCells * kCells % kBlockPixels == 0);
  const Conversion conversion(spaces::kSrgb, space_of(formula), KnownValues::kInRange);
  NearestColor nearest(palette, formula);
  PlaneBuffer planes(3);
  const auto middle = [](std::size_t cell) {
    return (static_cast<float>(cell) + 0.5f) * (256.0f / kCells) - 0.5f;
  };
  for (std::size_t first = 0; first < numbers_.size(); first += kBlockPixels) {
    for (std::size_t i = 0; i < kBlockPixels; ++i) {
      const std::size_t cell = first + i;
      planes.plane(0)[i] = middle(cell / (kCells * kCells));
      planes.plane(1)[i] = middle(cell / kCells % kCells);
      planes.plane(2)[i] = middle(cell % kCells);
    }
    conversion.run(read_only(planes.planes()), planes.planes(), kBlockPixels);
    nearest.find(read_only(planes.planes()), kBlockPixels, numbers_.data() + first);
  }
}

}  // namespace chalcedony
