#include "core/color/css_color.h"

#include <catch2/catch.hpp>

#include "core/error.h"

using namespace chalcedony;

TEST_CASE("CSS colors are read in every notation", "[core][color][css]") {
  struct Row {
    const char* text;
    const char* hex;
  };
  const Row rows[] = {{"#b5563a", "#b5563a"},
                      {"#F0a", "#ff00aa"},
                      {"rgb(181 86 58)", "#b5563a"},
                      {"rgb(181, 86, 58)", "#b5563a"},
                      {"rgb(100% 0% 50%)", "#ff0080"},
                      {"hsl(270 50% 40%)", "#663399"},
                      {"hwb(132 0% 0%)", "#00ff33"},
                      {"lab(29.2345% 39.3825 20.0664)", "#7d2329"},
                      {"oklab(40.101% 0.1147 0.0453)", "#7d2329"},
                      {"oklch(100% 0 0)", "#ffffff"},
                      {"lch(0 0 0deg)", "#000000"},
                      {"color(srgb 1 0.5 0)", "#ff8000"},
                      {"color(xyz-d65 0.9505 1 1.089)", "#ffffff"}};
  for (const Row& row : rows) {
    INFO(row.text);
    CHECK(css_hex(css_color(row.text)) == row.hex);
  }
}

TEST_CASE("what is no CSS color is refused with an example", "[core][color][css]") {
  for (const char* text : {"", "blue-ish", "#12", "#12345g", "rgb(1 2)", "rgb(1 2 3", "hsv(1 2 3)",
                           "gray(5)", "rgb(1 2 x)", "color(5 5 5)"}) {
    INFO(text);
    CHECK_THROWS_WITH(css_color(text),
                      Catch::Contains("is not a color") && Catch::Contains("#b5563a"));
  }
}
