// Regions drawn by hand, put into maps and masks.
#include "job/region/drawn_classes.h"

#include <catch2/catch.hpp>

#include "core/error.h"

using namespace chalcedony;

namespace {

/// A region of whole pixels.
void add_region(SampleSet& regions, const std::string& name, double left, double top, double width,
                double height) {
  regions.shapes.push_back(
      {regions.class_named(name), {rectangle_ring(left, top, width, height)}, {}, 0});
}

LabelPicture map_of(std::vector<LegendEntry> classes) {
  LabelPicture picture;
  picture.grid = LabelGrid(4, 2);
  picture.grid.labels = {1, 1, 3, 3, 1, 0, 3, 3};
  picture.classes = std::move(classes);
  return picture;
}

}  // namespace

TEST_CASE("pixels of drawn regions have their class, whatever the map said", "[job][tidy]") {
  LabelPicture map = map_of({{1, "ruby", "#a00000"}, {3, "Lead", "#303030"}});
  SampleSet regions;
  add_region(regions, "lead", 0, 0, 1, 2);
  add_region(regions, "patina", 1, 1, 2, 1);
  add_region(regions, "Unclassified", 3, 0, 1, 1);
  CHECK(draw_classes(regions, map) == 5);
  CHECK(map.grid.labels == std::vector<Label>{3, 1, 3, 0, 3, 2, 2, 3});
  REQUIRE(map.classes.size() == 3);
  CHECK(map.classes[2].index == 2);  // the lowest number that was free
  CHECK(map.classes[2].name == "patina");
  CHECK(map.classes[2].color.size() == 7);

  LabelPicture mask = map_of({{1, "selected", "#ffffff"}});
  mask.is_mask = true;
  mask.grid.labels = {1, 1, 0, 0, 1, 0, 0, 0};
  SampleSet marks;
  add_region(marks, "selected", 2, 0, 2, 1);
  add_region(marks, "unselected", 0, 0, 1, 1);
  CHECK(draw_classes(marks, mask) == 3);
  CHECK(mask.grid.labels == std::vector<Label>{0, 1, 1, 1, 1, 0, 0, 0});
  CHECK(mask.classes.size() == 1);
}

TEST_CASE("drawn regions that cannot be put into a map are refused", "[job][tidy]") {
  LabelPicture map = map_of({{1, "ruby", "#a00000"}, {3, "lead", "#303030"}});
  SampleSet both;
  add_region(both, "ruby", 0, 0, 2, 1);
  add_region(both, "lead", 1, 0, 2, 1);
  CHECK_THROWS_WITH(draw_classes(both, map),
                    "regions of 'ruby' and 'lead' share pixels; draw them apart");
  SampleSet outside;
  add_region(outside, "ruby", 3, 1, 2, 1);
  CHECK_THROWS_WITH(draw_classes(outside, map), Catch::Contains("reaches outside the picture"));
  SampleSet leaf;
  add_region(leaf, "leaf", 0, 0, 1, 1);
  LabelPicture mask = map_of({{1, "selected", "#ffffff"}});
  mask.is_mask = true;
  CHECK_THROWS_WITH(draw_classes(leaf, mask),
                    "draws 'leaf', and what it is drawn on is a mask; call regions of a mask "
                    "selected or unselected");
  std::vector<LegendEntry> all;
  for (unsigned number = 1; number < kLabels; ++number)
    all.push_back({number, std::to_string(number), "#000000"});
  LabelPicture full = map_of(std::move(all));
  const std::vector<Label> before = full.grid.labels;
  CHECK_THROWS_WITH(draw_classes(leaf, full),
                    "draws 'leaf', and the map has no number left for another class; draw it as "
                    "one of the map's classes");
  CHECK(full.grid.labels == before);
}
