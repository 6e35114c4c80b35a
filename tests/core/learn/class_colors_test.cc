#include "core/learn/class_colors.h"

#include <catch2/catch.hpp>

using namespace chalcedony;

TEST_CASE("the color of a class is the mean of its pixels in oklab", "[core][learn]") {
  ClassColors colors;
  colors.add(2, {0.2, 0.1, -0.1});
  colors.add(2, {0.6, 0.0, 0.3});
  CHECK_FALSE(colors.mean(0));
  CHECK_FALSE(colors.mean(3));
  const Color mean = *colors.mean(2);
  CHECK(mean.space == &spaces::kOklab);
  CHECK(mean.value[0] == Approx(0.4));
  CHECK(mean.value[1] == Approx(0.05));
  CHECK(mean.value[2] == Approx(0.1));
}

TEST_CASE("colors of pictures add up, by their own numbers of the classes", "[core][learn]") {
  ClassColors first, second;
  first.add(0, {0.1, 0, 0});
  second.add(0, {0.9, 0, 0});
  second.add(1, {0.3, 0, 0});
  first.add(second, {1, 0});
  CHECK(first.mean(0)->value[0] == Approx(0.2));
  CHECK(first.mean(1)->value[0] == Approx(0.9));
  first += first;
  CHECK(first.mean(0)->value[0] == Approx(0.2));
  second += first;
  CHECK(second.mean(0)->value[0] == Approx((0.9 + 2 * 0.2 * 2) / 5));
}
