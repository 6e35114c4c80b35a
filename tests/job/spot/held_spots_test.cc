// Spots held against those of another picture.
#include "job/spot/held_spots.h"

#include <catch2/catch.hpp>

#include "core/error.h"

using namespace chalcedony;

namespace {

SpotColor spot(const std::string& name, std::array<double, 3> lab) {
  SpotColor color;
  color.name = name;
  color.lab = lab;
  return color;
}

std::string words(double l, double a, double b) {
  return change_words(color_change({50, 10, 10}, {50 + l, 10 + a, 10 + b}));
}

}  // namespace

TEST_CASE("changes are told by their main directions", "[job][spots]") {
  CHECK(words(-5, 0, 0) == "darker");
  CHECK(words(5, 1, -2) == "lighter");
  CHECK(words(-4, 0, 8) == "darker, yellower");
  CHECK(words(0, -6, -5) == "greener, bluer");
  CHECK(words(3, 3, 3) == "lighter, redder, yellower");
  // What eyes take for the same has no direction.
  CHECK(words(0.2, 0, 0).empty());
  CHECK(words(0, 0, 0).empty());
}

TEST_CASE("spots are held against those of their names", "[job][spots]") {
  const std::vector<NamedLab> before{
      {"gray", {60, 0, 0}}, {"red", {40, 50, 30}}, {"blue", {30, 10, -40}}, {"gone", {20, 0, 0}}};
  const std::vector<SpotColor> now{spot("new", {10, 0, 0}), spot("red", {46, 44, 26}),
                                   spot("gray", {61, 0, 0}), spot("blue", {30, 10, -39.5})};
  const HeldSpots held = held_against(before, now, {{"gray"}, {}});
  REQUIRE(held.spots.size() == 4);
  CHECK_FALSE(held.spots[0].change);
  CHECK_FALSE(held.spots[0].beyond_steady);
  CHECK(held.spots[1].change->lightness == 6);
  CHECK(held.spots[1].beyond_steady == true);
  CHECK(held.steady == held.spots[2].change->delta_e);
  CHECK_FALSE(held.spots[2].beyond_steady);  // it is the measure itself
  CHECK(held.spots[3].beyond_steady == false);
  // Of several steady spots the one that went farthest is the measure.
  CHECK(held_against(before, now, {{"gray", "red"}, {}}).steady == held.spots[1].change->delta_e);
  const HeldSpots without = held_against(before, now, {});
  CHECK_FALSE(without.steady);
  CHECK_FALSE(without.spots[1].beyond_tolerance);
  const HeldSpots measured = held_against(before, now, {{}, 2});
  CHECK_FALSE(measured.spots[0].beyond_tolerance);  // it is held against none
  CHECK(measured.spots[1].beyond_tolerance == true);
  CHECK(measured.spots[3].beyond_tolerance == false);
  CHECK_FALSE(without.spots[1].beyond_steady);
  CHECK_THROWS_AS(held_against(before, {spot("other", {1, 0, 0})}, {}), InputError);
  CHECK_THROWS_AS(held_against(before, {spot("red", {1, 0, 0})}, {{"gray"}, {}}), InputError);
}
