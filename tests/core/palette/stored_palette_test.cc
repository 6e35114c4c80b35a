// Numbers painted as stored colors, against one pixel after the other.
#include "core/palette/stored_palette.h"

#include <catch2/catch.hpp>
#include <numeric>

#include "core/color/css_color.h"
#include "tests/support/instruction_sets.h"

using namespace chalcedony;

namespace {

/// Different in every channel, for every number.
std::vector<Color> colors_of(std::size_t count) {
  std::vector<Color> colors;
  for (std::size_t i = 1; i <= count; ++i)
    colors.push_back(
        {&spaces::kSrgb,
         {static_cast<double>(i), static_cast<double>(255 - i), static_cast<double>(7 * i % 256)}});
  return colors;
}

std::vector<std::byte> painted(const StoredPalette& palette,
                               const std::vector<std::uint8_t>& numbers, std::uint32_t channels) {
  std::vector<std::byte> stored(numbers.size() * channels + 1, std::byte{99});
  palette.paint(numbers.data(), numbers.size(), channels, stored.data());
  CHECK(stored.back() == std::byte{99});  // nothing beyond the last pixel
  stored.pop_back();
  return stored;
}

}  // namespace

TEST_CASE("numbers become the stored samples of their colors", "[core][palette]") {
  // More than any vector holds, and no whole number of them.
  std::vector<std::uint8_t> numbers(1027);
  std::iota(numbers.begin(), numbers.end(), std::uint8_t{0});
  for (const std::size_t count : {1u, 15u, 16u, 40u, 255u}) {
    const std::vector<Color> colors = colors_of(count);
    const StoredPalette palette(colors);
    for (const std::uint32_t channels : {3u, 4u}) {
      std::vector<std::byte> expected;
      for (const std::uint8_t number : numbers)
        for (std::size_t c = 0; c < channels; ++c) {
          const bool some = number != 0 && number <= count;
          const double sample = !some ? 0 : c == 3 ? 255 : colors[number - 1u].value[c];
          expected.push_back(static_cast<std::byte>(sample));
        }
      test::for_each_instruction_set([&](const char* name) {
        INFO(name << ", " << count << " colors, " << channels << " channels");
        CHECK(painted(palette, numbers, channels) == expected);
      });
    }
  }
}

TEST_CASE("stored colors are rounded and clipped, and none at all is black", "[core][palette]") {
  const StoredPalette palette({{&spaces::kSrgb, {-3, 127.5, 300}}, css_color("oklch(50% 0.4 30)")});
  const std::vector<std::byte> stored = painted(palette, {1, 2, 0}, 4);
  CHECK(std::vector<std::byte>(stored.begin(), stored.begin() + 4) ==
        std::vector<std::byte>{std::byte{0}, std::byte{128}, std::byte{255}, std::byte{255}});
  CHECK(stored[5] == std::byte{0});  // beyond sRGB: its green is below 0
  CHECK(std::vector<std::byte>(stored.begin() + 8, stored.end()) ==
        std::vector<std::byte>(4, std::byte{0}));
}
