// A card of pure, mixed and gray patches on which every plane can be predicted.
#ifndef CHALCEDONY_DEMO_TEST_CARD_H_
#define CHALCEDONY_DEMO_TEST_CARD_H_

#include <array>
#include <cstdint>
#include <vector>

namespace chalcedony::demo {

inline constexpr std::uint32_t kCardColumns = 6, kCardRows = 4, kPatchSize = 40;

/// The color of a patch, sRGB codes. Rows: pure hues, half-dark hues, half-pale hues, grays.
std::array<std::uint8_t, 3> patch_color(std::uint32_t column, std::uint32_t row);

/// The card, interleaved sRGB, kCardColumns * kPatchSize wide.
std::vector<std::uint8_t> draw_test_card();

}  // namespace chalcedony::demo

#endif  // CHALCEDONY_DEMO_TEST_CARD_H_
