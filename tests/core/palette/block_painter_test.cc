// Pixels painted with a palette, held against each color's difference taken one by one.
#include "core/palette/block_painter.h"

#include <catch2/catch.hpp>
#include <cmath>

#include "core/color/ciede2000.h"
#include "core/pixel/block_reader.h"
#include "tests/support/pictures.h"
#include "tests/support/plain_color.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

std::vector<Color> five_colors() {
  std::vector<Color> palette;
  for (const char* code : {"#204080", "#d0b040", "#802020", "#f0f0f0", "#101010"})
    palette.push_back(css_color(code));
  return palette;
}

PictureInfo megapixel_picture(std::uint32_t channels, const char* space = "srgb") {
  PictureInfo info;
  info.shape = {1000, 1000, channels, SampleType::kU8};
  if (channels == 4) info.alpha = AlphaKind::kStraight;
  info.space = &space_named(space);
  return info;
}

/// Stored pixels of a few hundred colors.
std::vector<std::byte> stored_pixels(std::uint32_t channels, std::size_t n, unsigned seed) {
  auto codes = random_bytes(channels * n, seed);
  for (auto& code : codes) code = static_cast<std::uint8_t>(code / 32 * 36);
  return bytes_of(codes);
}

double plain_difference(DifferenceFormula formula, const Triple& a, const Triple& b) {
  if (formula == DifferenceFormula::kCiede2000) return ciede2000(a, b);
  return std::hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
}

struct Painted {
  std::vector<std::uint8_t> numbers = std::vector<std::uint8_t>(kBlockPixels + kPlanePadding);
  std::vector<float> errors = std::vector<float>(kBlockPixels + kPlanePadding);
};

}  // namespace

TEST_CASE("a pixel is painted with the color that is nearest", "[core][palette]") {
  const auto formula = GENERATE(DifferenceFormula::kCiede2000, DifferenceFormula::kOklab);
  const std::string space = formula == DifferenceFormula::kOklab ? "oklab" : "lab";
  const auto palette = five_colors();
  const PictureInfo info = megapixel_picture(3);
  const ChannelPlan plan(info, BlockPainter::channels(formula));
  BlockPainter painter(plan, palette, formula);
  BlockReader reader(info, count_all());
  constexpr std::size_t kPixels = 400;
  const auto stored = stored_pixels(3, kPixels, 5);
  Painted painted;
  painter.paint(reader.read(stored.data(), 0, kPixels), painted.numbers.data(),
                painted.errors.data());
  for (std::size_t i = 0; i < kPixels; ++i) {
    Triple rgb{};
    for (std::size_t c = 0; c < 3; ++c) rgb[c] = std::to_integer<int>(stored[3 * i + c]);
    const Triple here = plain_from_srgb(space, rgb);
    double least = 1e9;
    for (const Color& color : palette)
      least = std::min(least, plain_difference(formula, here, color.in(space_named(space))));
    CAPTURE(i, rgb[0], rgb[1], rgb[2]);
    REQUIRE(painted.numbers[i] >= 1);
    REQUIRE(painted.numbers[i] <= palette.size());
    const Color& got = palette[painted.numbers[i] - 1u];
    REQUIRE(plain_difference(formula, here, got.in(space_named(space))) ==
            Approx(least).margin(1e-3));
    // From a gray to a blue the difference hangs on the hue that rounding leaves the gray.
    const bool gray = rgb[0] == rgb[1] && rgb[1] == rgb[2];
    REQUIRE(double{painted.errors[i]} ==
            Approx(ciede2000(plain_from_srgb("lab", rgb), got.in(spaces::kLab)))
                .margin(gray ? 1e-2 : 1e-3));
  }
}

TEST_CASE("of equally near colors the first is taken", "[core][palette]") {
  const std::vector<Color> palette{css_color("#808080"), css_color("#404040"),
                                   css_color("#404040")};
  const PictureInfo info = megapixel_picture(3);
  const ChannelPlan plan(info, BlockPainter::channels(DifferenceFormula::kOklab));
  BlockPainter painter(plan, palette, DifferenceFormula::kOklab);
  BlockReader reader(info, count_all());
  const auto stored = bytes_of(std::vector<std::uint8_t>{64, 64, 64, 120, 130, 128});
  Painted painted;
  painter.paint(reader.read(stored.data(), 0, 2), painted.numbers.data(), painted.errors.data());
  CHECK(painted.numbers[0] == 2);
  CHECK(painted.errors[0] == Approx(0).margin(1e-4));
  CHECK(painted.numbers[1] == 1);
}

TEST_CASE("known colors are painted as unknown ones are", "[core][palette]") {
  const std::uint32_t channels = GENERATE(3u, 4u);
  const auto* const space = GENERATE("srgb", "display-p3");
  const auto palette = five_colors();
  const PictureInfo info = megapixel_picture(channels, space);
  REQUIRE(ColorMemo::pays(info));
  constexpr auto kFormula = DifferenceFormula::kCiede2000;
  const ChannelPlan plan(info, BlockPainter::channels(kFormula));
  PaintByColor known;
  BlockPainter remembering(plan, palette, kFormula, &known);
  BlockPainter other_thread(plan, palette, kFormula, &known), plain(plan, palette, kFormula);
  BlockReader reader(info, count_all());
  for (unsigned round = 0; round < 4; ++round) {
    constexpr std::size_t kPixels = 1000;
    const auto stored = stored_pixels(channels, kPixels, round);
    const Block& block = reader.read(stored.data(), 0, kPixels);
    Painted found, asked;
    (round % 2 == 0 ? remembering : other_thread)
        .paint(block, found.numbers.data(), found.errors.data());
    plain.paint(block, asked.numbers.data(), asked.errors.data());
    CHECK(
        std::equal(found.numbers.begin(), found.numbers.begin() + kPixels, asked.numbers.begin()));
    CHECK(std::equal(found.errors.begin(), found.errors.begin() + kPixels, asked.errors.begin()));
    CHECK(std::count(found.numbers.begin(), found.numbers.begin() + kPixels, 1) > 100);
  }
}

TEST_CASE("only 8-bit colors of large pictures are looked up", "[core][palette]") {
  PictureInfo info = megapixel_picture(3);
  CHECK(ColorMemo::pays(info));
  info.shape.width = 100;
  CHECK_FALSE(ColorMemo::pays(info));
  info = megapixel_picture(3);
  info.shape.sample = SampleType::kU16;
  CHECK_FALSE(ColorMemo::pays(info));
  CHECK_FALSE(ColorMemo::pays(megapixel_picture(1)));
}
