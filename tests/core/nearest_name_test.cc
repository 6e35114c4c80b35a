#include "core/nearest_name.h"

#include <catch2/catch.hpp>

using namespace chalcedony;

TEST_CASE("edit distance counts letters added, lost, changed and swapped", "[core][names]") {
  CHECK(edit_distance("", "abc") == 3);
  CHECK(edit_distance("mask", "mask") == 0);
  CHECK(edit_distance("mask", "amsk") == 1);
  CHECK(edit_distance("classify", "clasify") == 1);
  CHECK(edit_distance("train", "brain") == 1);
}

TEST_CASE("the nearest name is offered only when it is near", "[core][names]") {
  const std::vector<std::string> known{"inspect", "convert", "mask"};
  CHECK(nearest_name("Inspct", known) == "inspect");
  CHECK(nearest_name("msak", known) == "mask");
  CHECK_FALSE(nearest_name("zebra", known).has_value());
  // A beginning is near to what it begins.
  CHECK(nearest_name("conv", known) == "convert");
  CHECK_FALSE(nearest_name("co", known).has_value());
  CHECK(suggest_name("convret", known) == "did you mean 'convert'?");
  CHECK(suggest_name("zebra", known) == "use one of inspect, convert, mask");
}
