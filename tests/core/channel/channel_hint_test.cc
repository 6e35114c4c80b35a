#include "core/channel/channel_hint.h"

#include <catch2/catch.hpp>

using namespace chalcedony;
using Names = std::vector<std::string>;

TEST_CASE("words and letters of the trade lead to channels", "[core][color]") {
  CHECK(channels_like("Hue") == Names{"hsv.h", "oklch.h", "hsl.h"});
  CHECK(channels_like("sat") == Names{"hsv.s", "hsl.s", "hsi.s"});
  CHECK(channels_like("saturtion") == channels_like("sat"));
  CHECK(channels_like("red") == Names{"srgb.r", "srgb-linear.r"});
  CHECK(channels_like("r") == Names{"srgb.r", "srgb-linear.r", "display-p3.r"});
  CHECK(channels_like("re").empty());
  // Every channel a word leads to is one.
  for (const char* word : {"hue", "saturation", "value", "lightness", "brightness", "chroma",
                           "intensity", "luma", "luminance", "red", "green", "blue", "cyan",
                           "magenta", "yellow", "whiteness", "blackness"}) {
    INFO(word);
    CHECK_FALSE(channels_like(word).empty());
    for (const std::string& name : channels_like(word)) CHECK(channel_named(name).name() == name);
  }
}

TEST_CASE("of a known space its nearest channels are meant, else the nearest name",
          "[core][color]") {
  CHECK(channels_like("lab.x") == Names{"lab.l", "lab.a", "lab.b"});
  CHECK(channels_like("hsv.hue") == Names{"hsv.h"});
  CHECK(channels_like("srbg.r") == Names{"srgb.r"});
  CHECK(channels_like("emerald").empty());
  CHECK(one_of_names({"lab.l"}) == "'lab.l'");
  CHECK(one_of_names({"lab.l", "lab.a", "lab.b"}) == "'lab.l', 'lab.a' or 'lab.b'");
  CHECK_THROWS_WITH(channel_named("hue"),
                    Catch::Contains("did you mean 'hsv.h', 'oklch.h' or 'hsl.h'?"));
}
