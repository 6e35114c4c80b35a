// How colors differ from what they were.
#include "core/color/color_change.h"

#include <catch2/catch.hpp>

#include "core/color/ciede2000.h"

using namespace chalcedony;

TEST_CASE("a change is later minus earlier", "[core][color]") {
  const std::array<double, 3> before{50, 3, 4}, after{44, -6, 8};
  const ColorChange change = color_change(before, after);
  CHECK(change.delta_e == ciede2000(before, after));
  CHECK(change.lightness == -6);
  CHECK(change.a == -9);
  CHECK(change.b == 4);
  CHECK(change.chroma == Approx(5));
  CHECK(change.largest() == 9);
  const ColorChange back = color_change(after, before);
  CHECK(back.lightness == 6);
  CHECK(back.chroma == Approx(-5));
  CHECK(back.delta_e == Approx(change.delta_e));
  CHECK(color_change(before, before).delta_e == 0);
}

TEST_CASE("the difference of a change is that of the published pairs", "[core][color]") {
  // Sharma, Wu and Dalal (2005), table 1, pairs 1, 17 and 34.
  CHECK(color_change({50, 2.6772, -79.7751}, {50, 0, -82.7485}).delta_e ==
        Approx(2.0425).margin(5e-5));
  CHECK(color_change({50, 2.5, 0}, {73, 25, -18}).delta_e == Approx(27.1492).margin(5e-5));
  CHECK(color_change({2.0776, 0.0795, -1.1350}, {0.9033, -0.0636, -0.5514}).delta_e ==
        Approx(0.9082).margin(5e-5));
}
