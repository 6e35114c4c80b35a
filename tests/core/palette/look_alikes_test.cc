// Which colors look alike to whom, held against distances worked out one by one.
#include "core/palette/look_alikes.h"

#include <catch2/catch.hpp>

#include "core/color/ciede2000.h"
#include "core/color/conversion.h"

using namespace chalcedony;

namespace {

Palette palette_in_order(const std::vector<const char*>& colors) {
  Palette palette;
  for (const char* css : colors) {
    PaletteColor& one = palette.emplace_back();
    one.look.oklab = css_color(css).in(spaces::kOklab);
  }
  return palette;
}

std::vector<std::array<std::size_t, 2>> places_of(const std::vector<LookAlike>& alike) {
  std::vector<std::array<std::size_t, 2>> places;
  for (const LookAlike& one : alike) places.push_back({one.pair.first, one.pair.second});
  return places;
}

}  // namespace

TEST_CASE("pairs are as far apart as their colors seen one by one", "[core][palette]") {
  const std::vector<const char*> colors{"#c81e28", "#1b7541", "#7d5849", "#808080"};
  const auto pairs = seen_pairs(palette_in_order(colors));
  REQUIRE(pairs.size() == 6);
  for (const SeenPair& pair : pairs)
    for (const ColorVision vision : {ColorVision::kFull, ColorVision::kProtanopia,
                                     ColorVision::kDeuteranopia, ColorVision::kTritanopia}) {
      const auto lab = [&](std::size_t i) {
        const auto seen = seen_with(vision, css_color(colors[i]).in(spaces::kSrgb));
        return convert_color(spaces::kSrgb, spaces::kLab, seen);
      };
      INFO(pair.first << " and " << pair.second << ", " << name_of(vision));
      CHECK(pair.seen_with(vision) ==
            Approx(ciede2000(lab(pair.first), lab(pair.second))).margin(1e-9));
    }
}

TEST_CASE("grays are as far apart with every vision", "[core][palette]") {
  const auto pairs = seen_pairs(palette_in_order({"#404040", "#909090"}));
  REQUIRE(pairs.size() == 1);
  for (const ColorVision vision : kVisionDeficiencies)
    CHECK(pairs[0].seen_with(vision) == Approx(pairs[0].seen_with(ColorVision::kFull)).margin(0.2));
}

TEST_CASE("a green and a brown look alike without green cones", "[core][palette]") {
  // The third is far from both; the fourth is close to it for everybody.
  const auto pairs = seen_pairs(palette_in_order({"#1b7541", "#7d5849", "#1e3cb4", "#1e3cb8"}));
  const auto alike = look_alikes(pairs, 8);
  REQUIRE(places_of(alike) == std::vector<std::array<std::size_t, 2>>{{0, 1}});
  CHECK(alike[0].vision == ColorVision::kDeuteranopia);
  CHECK(alike[0].pair.seen_with(ColorVision::kDeuteranopia) < 2);
  CHECK(alike[0].pair.seen_with(ColorVision::kFull) > 30);
  CHECK(closest_pair(pairs, ColorVision::kFull)->first == 2);
  CHECK(look_alikes(pairs, 1).empty());
  CHECK(closest_pair({}, ColorVision::kFull) == nullptr);
}

TEST_CASE("look-alikes come closest first", "[core][palette]") {
  const auto alike =
      look_alikes(seen_pairs(palette_in_order({"#643136", "#31553e", "#1b7541", "#7d5849"})), 8);
  REQUIRE(alike.size() >= 2);
  for (std::size_t i = 1; i < alike.size(); ++i)
    CHECK(alike[i - 1].pair.seen_with(alike[i - 1].vision) <=
          alike[i].pair.seen_with(alike[i].vision));
  CHECK(places_of(alike)[0] == std::array<std::size_t, 2>{2, 3});
}
