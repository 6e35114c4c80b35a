#include "core/select/doubtful_limits.h"

#include <catch2/catch.hpp>

using namespace chalcedony;

namespace {

struct Doubted {
  const char* selection;
  bool outside, never;
  double counted_to;
  const char* instead;
};

}  // namespace

TEST_CASE("limits that nothing reaches, or counted otherwise, are doubtful", "[core][select]") {
  const std::vector<Doubted> doubted{{"hsv.s in 120..200", true, true, 255, "hsv.s in 47.1..78.4"},
                                     {"hsv.s in 50..255", false, false, 255, "hsv.s in 19.6..100"},
                                     {"hsv.s > 255", true, true, 255, "hsv.s > 100"},
                                     {"255 >= hsl.l", false, false, 255, "hsl.l <= 100"},
                                     {"hsv.s > 0.4", false, false, 1, "hsv.s > 40"},
                                     {"srgb.r in 0.2..1", false, false, 1, "srgb.r in 51..255"},
                                     {"hsv.h in 0..180", false, false, 180, "hsv.h in 0..360"},
                                     {"hsv.h in 0..240", false, false, 240, "hsv.h in 0..360"},
                                     {"hsv.h in 100..255", false, false, 255, "hsv.h in 141..360"},
                                     {"hsv.h in 400..500", true, true, 0, "hsv.h in 40..140"},
                                     {"hsv.h in 350..370", false, false, 0, "hsv.h in 350..10"},
                                     {"hsv.h in -180..180", false, false, 0, "hsv.h in 0..360"},
                                     {"lch.h in -20..20", false, false, 0, "lch.h in 340..20"},
                                     {"gray = 300", true, true, 0, ""},
                                     {"gray < -3", true, true, 0, ""},
                                     {"oklab.l >= 50", true, false, 100, "oklab.l >= 0.5"},
                                     {"lab.l = 128", true, false, 255, "lab.l = 50.2"},
                                     // Floats may lie there.
                                     {"lab.a > 130", true, false, 0, ""},
                                     {"srgb.r > 300", true, false, 0, ""}};
  for (const Doubted& one : doubted) {
    INFO(one.selection);
    const auto tests = doubtful_tests(parse_expression(one.selection));
    REQUIRE(tests.size() == 1);
    CHECK(tests[0].text == one.selection);
    CHECK(tests[0].doubt.outside == one.outside);
    CHECK(tests[0].doubt.never == one.never);
    CHECK(tests[0].doubt.counted_to == one.counted_to);
    CHECK(tests[0].instead == one.instead);
    // What is proposed can be read, and is not doubtful itself.
    if (!tests[0].instead.empty())
      CHECK(doubtful_tests(parse_expression(tests[0].instead)).empty());
  }
}

TEST_CASE("red where hues end at 180 is two intervals of another circle", "[core][select]") {
  const auto tests =
      doubtful_tests(parse_expression("(hsv.h in 170..180 or hsv.h in 0..10) and hsv.s > 40"));
  REQUIRE(tests.size() == 2);
  CHECK(tests[0].text == "hsv.h in 170..180");
  CHECK(tests[0].instead == "hsv.h in 340..360");
  CHECK(tests[1].instead == "hsv.h in 0..20");
}

TEST_CASE("usual limits are not doubtful", "[core][select]") {
  for (const char* selection :
       {"hsv.h in 200..240 and hsv.s >= 40", "hsv.h in 340..20", "gray < 0.5", "srgb.r in 0..1",
        "hsv.h in 0..20 or hsv.h in 340..360", "hsv.h in 0..180 or hsv.h in 300..320",
        "hsv.h in 0..240 and hsv.h < 300", "hsv.h in 345..360 and hsv.s in 56..86",
        "lab.a in -45.9..-18.5", "hsv.h in 120..180", "hsv.s = 100", "hsv.s in 0..100",
        "file.0 > 60000", "srgb.r > 150 and srgb.b < 40", "lab.a * lab.a < 900",
        "near(#b5563a, 12)", "oklab.l in 0.2..0.55", "not hsv.v <= 100"}) {
    INFO(selection);
    CHECK(doubtful_tests(parse_expression(selection)).empty());
  }
}
