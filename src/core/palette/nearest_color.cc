#include "core/palette/nearest_color.h"

#include <algorithm>

#include "core/color/ciede2000.h"
#include "core/color/conversion.h"

namespace chalcedony {

const Space& space_of(ColorDistance distance) {
  return distance == ColorDistance::kOklab ? spaces::kOklab : spaces::kLab;
}

NearestColor::NearestColor(const std::vector<Color>& palette, ColorDistance distance)
    : distance_(distance), buffer_(2) {
  for (const Color& color : palette) colors_.push_back(color.in(space_of(distance)));
}

void NearestColor::find(const ConstPlanes& values, std::size_t n, std::uint8_t* numbers) {
  float* const best = buffer_.plane(0);
  float* const here = buffer_.plane(1);
  for (std::size_t k = 0; k < colors_.size(); ++k) {
    if (distance_ == ColorDistance::kCiede2000) {
      ciede2000_to(colors_[k], values, n, here);
    } else {
      const auto l = static_cast<float>(colors_[k][0]), a = static_cast<float>(colors_[k][1]),
                 b = static_cast<float>(colors_[k][2]);
      for (std::size_t i = 0; i < n; ++i) {
        const float dl = values[0][i] - l, da = values[1][i] - a, db = values[2][i] - b;
        here[i] = dl * dl + da * da + db * db;
      }
    }
    const auto number = static_cast<std::uint8_t>(k + 1);
    for (std::size_t i = 0; i < n; ++i) {
      const bool better = k == 0 || here[i] < best[i];
      best[i] = better ? here[i] : best[i];
      numbers[i] = better ? number : numbers[i];
    }
  }
}

NearestColorTable::NearestColorTable(const std::vector<Color>& palette, ColorDistance distance)
    : numbers_(kCells * kCells * kCells) {
  static_assert(kCells * kCells == kBlockPixels);
  const Conversion conversion(spaces::kSrgb, space_of(distance), true);
  NearestColor nearest(palette, distance);
  PlaneBuffer planes(3);
  const auto middle = [](std::size_t cell) {
    return (static_cast<float>(cell) + 0.5f) * (256.0f / kCells) - 0.5f;
  };
  for (std::size_t r = 0; r < kCells; ++r) {
    for (std::size_t i = 0; i < kBlockPixels; ++i) {
      planes.plane(0)[i] = middle(r);
      planes.plane(1)[i] = middle(i / kCells);
      planes.plane(2)[i] = middle(i % kCells);
    }
    conversion.run(read_only(planes.planes()), planes.planes(), kBlockPixels);
    nearest.find(read_only(planes.planes()), kBlockPixels, numbers_.data() + r * kBlockPixels);
  }
}

}  // namespace chalcedony
