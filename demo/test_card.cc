#include "demo/test_card.h"

namespace chalcedony::demo {

std::array<std::uint8_t, 3> patch_color(std::uint32_t column, std::uint32_t row) {
  if (row == 3) {
    const auto gray = static_cast<std::uint8_t>(51 * column);
    return {gray, gray, gray};
  }
  // Red, yellow, green, cyan, blue, magenta.
  constexpr std::array<std::array<bool, 3>, kCardColumns> on{{{true, false, false},
                                                              {true, true, false},
                                                              {false, true, false},
                                                              {false, true, true},
                                                              {false, false, true},
                                                              {true, false, true}}};
  const std::uint8_t high = row == 1 ? 128 : 255, low = row == 2 ? 128 : 0;
  std::array<std::uint8_t, 3> color{};
  for (std::size_t c = 0; c < 3; ++c) color[c] = on[column][c] ? high : low;
  return color;
}

std::vector<std::uint8_t> draw_test_card() {
  std::vector<std::uint8_t> rgb;
  for (std::uint32_t y = 0; y < kCardRows * kPatchSize; ++y)
    for (std::uint32_t x = 0; x < kCardColumns * kPatchSize; ++x)
      for (const std::uint8_t v : patch_color(x / kPatchSize, y / kPatchSize)) rgb.push_back(v);
  return rgb;
}

}  // namespace chalcedony::demo
