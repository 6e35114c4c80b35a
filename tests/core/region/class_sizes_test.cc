// How many regions classes have, and how large they are.
#include "core/region/class_sizes.h"

#include <catch2/catch.hpp>

using namespace chalcedony;

TEST_CASE("sizes of a class are those of its regions", "[core][region]") {
  const auto region = [](Label label, std::uint64_t pixels, bool at_edge = false) {
    RegionMeasures one;
    one.label = label;
    one.pixels = pixels;
    one.at_edge = at_edge;
    return one;
  };
  const auto sizes = sizes_of_classes(
      {region(3, 10), region(1, 7, true), region(3, 2, true), region(3, 4), region(3, 100, true)});
  REQUIRE(sizes.size() == 2);
  CHECK(sizes[0].label == 1);
  CHECK(sizes[0].regions == 1);
  CHECK(sizes[0].at_edge == 1);
  CHECK(sizes[0].percentile(50) == 7);
  const ClassSizes& three = sizes[1];
  CHECK(three.label == 3);
  CHECK(three.regions == 4);
  CHECK(three.at_edge == 2);
  CHECK(three.pixels == 116);
  CHECK(three.mean() == 29);
  CHECK(three.sorted == std::vector<std::uint64_t>{2, 4, 10, 100});
  CHECK(three.percentile(0) == 2);
  CHECK(three.percentile(25) == 2);
  CHECK(three.percentile(26) == 4);
  CHECK(three.percentile(50) == 4);  // the lower of the two in the middle
  CHECK(three.percentile(90) == 100);
  CHECK(three.percentile(100) == 100);
  CHECK(sizes_of_classes({}).empty());
}
