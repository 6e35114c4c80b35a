#include "core/palette/palette.h"

#include <catch2/catch.hpp>
#include <random>

#include "core/color/ciede2000.h"
#include "core/color/conversion.h"
#include "core/palette/color_merging.h"
#include "core/palette/color_name.h"
#include "core/palette/contrast.h"
#include "core/palette/error_diffusion.h"
#include "core/palette/nearest_color.h"
#include "core/planes.h"
#include "io/document/palette_file.h"

using namespace chalcedony;

namespace {

GroupLook look_of(const char* css, double pixels) {
  GroupLook look;
  look.pixels = pixels;
  look.oklab = look.typical = css_color(css).in(spaces::kOklab);
  return look;
}

/// Points that own their numbers.
struct OwnedPoints {
  std::vector<float> l, a, b;
  std::vector<double> weights;

  void add(const char* css, double weight) {
    const auto color = css_color(css).in(spaces::kOklab);
    l.push_back(static_cast<float>(color[0]));
    a.push_back(static_cast<float>(color[1]));
    b.push_back(static_cast<float>(color[2]));
    weights.push_back(weight);
  }
  Points points() {
    const std::size_t size = weights.size();
    for (auto* plane : {&l, &a, &b}) plane->resize(size + kPlanePadding);
    return {size, {l.data(), a.data(), b.data()}, weights.data()};
  }
};

}  // namespace

TEST_CASE("contrast ratios are those the guidelines give", "[core][palette]") {
  const Color white = css_color("#fff"), black = css_color("#000");
  CHECK(contrast_ratio(white, black) == Approx(21));
  CHECK(contrast_ratio(black, black) == 1);
  // #767676 is known as the lightest gray that passes 4.5 on white.
  CHECK(contrast_ratio(css_color("#767676"), white) == Approx(4.54).margin(0.005));
  CHECK(contrast_ratio(white, css_color("#777777")) == Approx(4.48).margin(0.005));
  CHECK(contrast_ratio(css_color("#ff0000"), white) == Approx(1.05 / (0.2126 + 0.05)));
  CHECK(relative_luminance(css_color("#00ff00")) == Approx(0.7152));
}

TEST_CASE("colors get names that people would give them", "[core][palette]") {
  const std::vector<std::pair<const char*, const char*>> expected{
      {"#000000", "black"},        {"#ffffff", "white"},        {"#808080", "gray"},
      {"#ff0000", "vivid red"},    {"#7a1a1a", "dark red"},     {"#ffb6c1", "pink"},
      {"#8b5a2b", "brown"},        {"#ff8c00", "vivid orange"}, {"#ffff00", "vivid yellow"},
      {"#808000", "olive"},        {"#00a000", "vivid green"},  {"#008080", "blue-green"},
      {"#0000ff", "vivid blue"},   {"#1e2f6e", "dark blue"},    {"#b0c4de", "pale blue"},
      {"#8a2be2", "vivid violet"}, {"#3c3d40", "dark gray"},    {"#c8c8c6", "light gray"}};
  for (const auto& [css, name] : expected) {
    INFO(css);
    CHECK(color_name(css_color(css)) == name);
  }
}

TEST_CASE("a typical color stays with the many, the mean does not", "[core][palette]") {
  OwnedPoints owned;
  owned.add("#1d7f46", 60);
  owned.add("#1e8047", 30);
  owned.add("#805945", 40);
  owned.add("#c00000", 7);  // of another group
  const std::vector<std::uint8_t> labels{1, 1, 1, 2};
  const Points points = owned.points();
  auto looks = group_looks(points, labels, 2);
  find_typical(points, labels, looks);
  CHECK(looks[0].pixels == 130);
  CHECK(css_hex({&spaces::kOklab, looks[0].typical}) == "#1d7f46");
  CHECK(ciede2000(lab_of(looks[0].oklab), lab_of(looks[0].typical)) > 5);
  CHECK(css_hex({&spaces::kOklab, looks[1].typical}) == "#c00000");
  CHECK(looks[1].spread == Approx(0).margin(0.01));
}

TEST_CASE("close colors merge first, then those that cost least", "[core][palette]") {
  const std::vector<GroupLook> looks{look_of("#c00000", 100), look_of("#c20202", 50),
                                     look_of("#0000c0", 80), look_of("#00a000", 5),
                                     look_of("#50c040", 1)};
  CHECK(merged_groups(looks, 9, 0) == std::vector<std::uint8_t>{1, 2, 3, 4, 5});
  CHECK(merged_groups(looks, 9, 3) == std::vector<std::uint8_t>{1, 1, 2, 3, 4});
  CHECK(merged_groups(looks, 3, 3) == std::vector<std::uint8_t>{1, 1, 2, 3, 3});
  CHECK(merged_groups(looks, 1, 0) == std::vector<std::uint8_t>{1, 1, 1, 1, 1});
  // The two nearest become one between them, which is near the third.
  CHECK(merged_groups({look_of("#0c0c0c", 9), look_of("#2f2f2f", 10), look_of("#3d3d3d", 10)}, 9,
                      20) == std::vector<std::uint8_t>{1, 1, 1});
}

TEST_CASE("a palette is in order of share and knows its neighbors", "[core][palette]") {
  const Palette palette = make_palette({look_of("#0000c0", 10), look_of("#ffffff", 30),
                                        look_of("#202020", 0), look_of("#c00000", 60)});
  REQUIRE(palette.size() == 3);
  CHECK(palette[0].percent == Approx(60));
  CHECK(css_hex(palette[2].color()) == "#0000c0");
  CHECK(palette[0].look.nearest == 2);
  CHECK(palette[2].look.nearest_distance == Approx(ciede2000(css_color("#c00000").in(spaces::kLab),
                                                             css_color("#0000c0").in(spaces::kLab)))
                                                .epsilon(1e-5));
  CHECK(make_palette({look_of("#c00000", 1), look_of("#0000c0", 0)}).size() == 1);
  CHECK(palette[1].takes_black());
  CHECK_FALSE(palette[2].takes_black());
  CHECK(contrast_within(palette, 0, 1) == Approx(palette[0].contrast_white));
}

TEST_CASE("palettes are read as they were written, or from a list of colors", "[io][palette]") {
  const Palette palette = make_palette({look_of("#0000c0", 10), look_of("#fedcba", 30)});
  const auto colors = parse_palette_colors(palette_text(palette, "a.png"));
  REQUIRE(colors.size() == 2);
  CHECK(css_hex(colors[0]) == "#fedcba");
  CHECK(parse_palette_colors("#fff\n rgb(1 2 3);\r\n\n").size() == 2);
  CHECK_THROWS_WITH(parse_palette_colors("\n \n"), Catch::Contains("holds no color"));
  CHECK_THROWS_WITH(parse_palette_colors("{\"a\": 1}"), Catch::Contains("is not a palette"));
  CHECK_THROWS_WITH(parse_palette_colors("{\"chalcedony\": \"palette\", \"version\": 9}"),
                    Catch::Contains("of version 9"));
  CHECK_THROWS_WITH(parse_palette_colors("{\"chalcedony\": \"palette\", \"version\": 1, \"colo"),
                    Catch::Contains("a damaged one"));
  CHECK_THROWS_WITH(parse_palette_colors("#ff00zz"), Catch::Contains("'#ff00zz' is not a color"));
  std::string many;
  for (int i = 0; i < 256; ++i) many += "#000000\n";
  CHECK_THROWS_WITH(parse_palette_colors(many), Catch::Contains("more than 255"));
}

TEST_CASE("the nearest color is the one a plain search finds", "[core][palette]") {
  std::mt19937 random(3);
  std::uniform_real_distribution<double> channel(0, 255);
  const auto any = [&] {
    return Color{&spaces::kSrgb, {channel(random), channel(random), channel(random)}};
  };
  std::vector<Color> palette;
  for (int i = 0; i < 7; ++i) palette.push_back(any());
  for (const DifferenceFormula distance :
       {DifferenceFormula::kCiede2000, DifferenceFormula::kOklab}) {
    NearestColor nearest(palette, distance);
    PlaneBuffer planes(3);
    std::vector<std::array<double, 3>> values;
    for (std::size_t i = 0; i < 300; ++i) {
      values.push_back(any().in(space_of(distance)));
      for (std::size_t c = 0; c < 3; ++c) planes.plane(c)[i] = static_cast<float>(values.back()[c]);
    }
    std::vector<std::uint8_t> numbers(300 + kPlanePadding);
    nearest.find(read_only(planes.planes()), 300, numbers.data());
    const auto far = [&](std::size_t i, std::size_t k) {
      const auto color = palette[k].in(space_of(distance));
      if (distance == DifferenceFormula::kCiede2000) return ciede2000(color, values[i]);
      return std::hypot(color[0] - values[i][0], color[1] - values[i][1], color[2] - values[i][2]);
    };
    for (std::size_t i = 0; i < 300; ++i) {
      double best = 1e300;
      for (std::size_t k = 0; k < 7; ++k) best = std::min(best, far(i, k));
      CHECK(far(i, numbers[i] - 1u) <= best + 2e-3);
    }
  }
}

TEST_CASE("the table of nearest colors gives each palette color itself", "[core][palette]") {
  const std::vector<Color> palette{css_color("#000"), css_color("#fff"), css_color("#a01c2e"),
                                   css_color("#2243a6")};
  const NearestColorTable table(palette, DifferenceFormula::kCiede2000);
  const auto find = [&](float r, float g, float b) {
    return table.find(table.cell(r), table.cell(g), table.cell(b));
  };
  CHECK(find(0, 0, 0) == 1);
  CHECK(find(300, 300, 300) == 2);
  CHECK(find(-5, 0, 0) == 1);
  CHECK(find(0xa0, 0x1c, 0x2e) == 3);
  CHECK(find(0x22, 0x43, 0xa6) == 4);
}

TEST_CASE("diffused errors keep the light of an area", "[core][palette]") {
  const std::vector<Color> palette{css_color("#000"), css_color("#fff")};
  constexpr std::uint32_t width = 200, rows = 100;
  for (const float linear : {20.0f, 85.0f, 200.0f}) {
    ErrorDiffusion diffusion(width, palette, DifferenceFormula::kOklab);
    const std::vector<float> plane(width, linear);
    std::vector<std::uint8_t> numbers(width);
    double white = 0;
    for (std::uint32_t y = 0; y < rows; ++y) {
      diffusion.next_row({plane.data(), plane.data(), plane.data()}, nullptr, numbers.data());
      white += static_cast<double>(std::count(numbers.begin(), numbers.end(), 2));
    }
    CHECK(white / (width * rows) == Approx(static_cast<double>(linear) / 255).margin(0.01));
  }
  // Pixels that do not count get no color.
  ErrorDiffusion diffusion(3, palette, DifferenceFormula::kOklab);
  const std::vector<float> plane{255, 255, 255};
  const std::vector<std::uint8_t> counted{1, 0, 1};
  std::vector<std::uint8_t> numbers(3);
  diffusion.next_row({plane.data(), plane.data(), plane.data()}, counted.data(), numbers.data());
  CHECK(numbers == std::vector<std::uint8_t>{2, 0, 2});
}
