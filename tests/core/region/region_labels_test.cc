// What the labels of another picture take of regions.
#include "core/region/region_labels.h"

#include <catch2/catch.hpp>

using namespace chalcedony;

TEST_CASE("labels are counted region by region, in any order", "[core][region]") {
  RegionLabels labels(3);
  labels.add(0, 7, 2);
  labels.add(2, 1, 5);
  labels.add(0, 3, 1);
  labels.add(0, 7, 4);
  labels.add(0, 0, 3);
  CHECK(labels.regions() == 3);
  REQUIRE(labels.of(0).size() == 3);
  CHECK(labels.of(0)[0].label == 0);
  CHECK(labels.of(0)[1].label == 3);
  CHECK(labels.of(0)[2].label == 7);
  CHECK(labels.pixels(0, 7) == 6);
  CHECK(labels.pixels(0, 3) == 1);
  CHECK(labels.pixels(0, 5) == 0);
  CHECK(labels.pixels(0) == 10);
  CHECK(labels.of(1).empty());
  CHECK(labels.pixels(2) == 5);
}

TEST_CASE("the shares of a label are those in each region", "[core][region]") {
  RegionLabels labels(5);
  const auto fill = [&](std::size_t region, std::uint64_t of_two, std::uint64_t others) {
    if (of_two > 0) labels.add(region, 2, of_two);
    labels.add(region, 1, others);
  };
  fill(0, 1, 3);   // a quarter
  fill(1, 0, 10);  // none
  fill(2, 9, 1);
  fill(3, 90, 10);  // as high as the one before
  fill(4, 1, 1);
  const LabelShares all = label_shares(labels, 2, {0, 1, 2, 3, 4});
  CHECK(all.pixels == 101);
  CHECK(all.held_by == 4);
  CHECK(all.lowest == 0);
  CHECK(all.median == 50);
  CHECK(all.highest == 90);
  CHECK(all.highest_region == 2);
  const LabelShares some = label_shares(labels, 2, {0, 4});
  CHECK(some.pixels == 2);
  CHECK(some.lowest == 25);
  CHECK(some.median == 25);  // the lower of the two in the middle
  CHECK(some.highest_region == 4);
  const LabelShares none = label_shares(labels, 9, {3, 1});
  CHECK(none.held_by == 0);
  CHECK(none.highest == 0);
  CHECK(none.highest_region == 3);
}
