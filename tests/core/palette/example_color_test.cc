#include "core/palette/example_color.h"

#include <catch2/catch.hpp>
#include <string>

using namespace chalcedony;

TEST_CASE("example colors show the values of a channel", "[core][palette]") {
  CHECK(css_hex(*example_color(channel_named("srgb.g"), 128)) == "#008000");
  CHECK(css_hex(*example_color(channel_named("gray"), 255)) == "#ffffff");
  const auto look = [](const char* channel, double value) {
    return example_color(channel_named(channel), value)->in(spaces::kOklch);
  };
  // A lightness has no color, a hue is what it says, a saturation grows away from gray.
  for (const char* lightness : {"lab.l", "oklch.l", "hsv.v", "hsl.l", "luv.l"}) {
    const double high = std::string(lightness) == "oklch.l" ? 0.9 : 90;
    CHECK(look(lightness, high)[1] < 0.01);
    CHECK(look(lightness, high)[0] > look(lightness, high / 3)[0] + 0.2);
  }
  CHECK(look("hsv.h", 240)[2] == Approx(264).margin(8));
  CHECK(look("oklch.h", 140)[2] == Approx(140).margin(0.1));
  for (const char* strength : {"hsv.s", "hsl.s"})
    CHECK(look(strength, 90)[1] > look(strength, 20)[1] + 0.05);
  CHECK(look("lab.a", -60)[2] > 150);
  CHECK_FALSE(example_color(channel_named("xyz-d65.x"), 1));
  CHECK_FALSE(example_color(channel_named("file.0"), 1));
}
