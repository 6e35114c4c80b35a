// The colors of classes that are selections.
#include "core/palette/selection_colors.h"

#include <algorithm>
#include <catch2/catch.hpp>

#include "core/palette/figure_colors.h"
#include "tests/support/uncolored_classes.h"

using namespace chalcedony;
using namespace chalcedony::test;

TEST_CASE("classes have the colors that their selections speak of", "[core][select]") {
  const auto meant = [](const std::string& where) {
    const auto color = color_meant(parse_expression(where));
    return color ? css_hex(*color) : "";
  };
  const auto hue = [&](const std::string& where) {
    return css_color(meant(where)).in(spaces::kHsv)[0];
  };
  CHECK(hue("hsv.h in 200..260 and hsv.s > 30") == Approx(230).margin(1));
  CHECK(hue("hsv.s > 30 and hsv.h in 340..20") == Approx(0).margin(1));
  CHECK(hue("hsv.h in 330..10") == Approx(350).margin(1));
  CHECK(meant("lab.l > 3 and near(#d68e18, 15)") == "#d68e18");
  // Of lightness alone grays, by the middle of what is taken.
  CHECK(css_color(meant("lab.l < 30")).in(spaces::kLab)[0] == Approx(15).margin(0.3));
  CHECK(css_color(meant("lab.l >= 60")).in(spaces::kLab)[0] == Approx(80).margin(0.3));
  CHECK(css_color(meant("lab.l in 20..30")).in(spaces::kLab)[0] == Approx(25).margin(0.3));
  CHECK(meant("gray <= 100") == "#323232");
  for (const char* const none :
       {"hsv.s > 30", "lab.l < 30 and lab.a > 4", "not hsv.h in 200..260", "lab.l = 30",
        "near(#ff0000, 3) or hsv.h in 0..20", "lab.l + 3 < 30", "lab.l < lab.a"})
    CHECK(meant(none).empty());
}

TEST_CASE("colors of classes are told apart", "[core][select]") {
  auto classes = uncolored({{"a", "hsv.s > 30"},
                            {"blue", "hsv.h in 200..260 and hsv.v > 50"},
                            {"dark blue", "hsv.h in 205..255 and hsv.v <= 50"},
                            {"blue", "hsv.h in 90..120"},
                            {"b", "hsv.s < 10"},
                            {"c", "hsv.s > 90"}});
  classes[5].color = "#808080";
  give_colors(classes);
  std::vector<std::string> colors;
  for (const SelectedClass& one : classes) colors.push_back(one.color);
  CHECK(colors[1] == css_hex(*color_meant(classes[1].where)));
  CHECK(colors[3] == colors[1]);  // of one name
  CHECK(colors[5] == "#808080");  // as given
  std::vector<std::string> different{colors[0], colors[1], colors[2], colors[4], colors[5]};
  std::sort(different.begin(), different.end());
  CHECK(std::adjacent_find(different.begin(), different.end()) == different.end());
  auto many = uncolored({});
  for (int i = 0; i < 64; ++i)
    many.push_back({"class " + std::to_string(i), "", parse_expression("hsv.s > 3")});
  give_colors(many);
  for (const SelectedClass& one : many) REQUIRE(one.color.size() == 7);
  CHECK(many[0].color == css_hex(class_color(0)));
  CHECK(many[0].color != many[1].color);
}
