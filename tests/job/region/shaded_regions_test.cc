// Regions in the colors of how much of them classes of a map take.
#include "job/region/shaded_regions.h"

#include <catch2/catch.hpp>
#include <cmath>

#include "core/color/css_color.h"
#include "core/palette/figure_colors.h"

using namespace chalcedony;

namespace {

/// Regions of so many pixels below each other, each a row of a picture 20 pixels wide, of which a
/// class takes so many percent.
struct Rows {
  MeasuredRegions found;
  LabelPicture picture;

  explicit Rows(const std::vector<std::pair<std::uint32_t, double>>& regions) {
    picture.grid = LabelGrid(20, static_cast<std::uint32_t>(2 * regions.size()));
    RegionLabels labels(regions.size());
    for (std::size_t r = 0; r < regions.size(); ++r) {
      const auto [pixels, share] = regions[r];
      std::fill_n(picture.grid.row(2 * r), pixels, Label{1});
      RegionMeasures region;
      region.label = 1;
      region.pixels = pixels;
      region.center_x = pixels / 2.0;
      region.center_y = 2 * static_cast<double>(r) + 0.5;
      found.regions.push_back(region);
      const auto held = static_cast<std::uint64_t>(std::lround(pixels * share / 100));
      if (held > 0) labels.add(r, 7, held);
      if (held < pixels) labels.add(r, 0, pixels - held);
    }
    found.map = MapInRegions{
        "map.png", false, {{7, "rust", "#804020"}, {0, "unclassified", "#000000"}}, labels};
  }

  std::vector<SheetCell> cells() {
    const RegionMap map = find_regions(picture.grid, Connectivity::kEight);
    return shaded_regions(found, map, picture);
  }
};

std::string color_of_row(const SheetCell& cell, std::size_t row) {
  const std::uint8_t* const rgb = cell.picture.rgb.data() + 3 * 20 * 2 * row;
  return css_hex({&spaces::kSrgb, {double(rgb[0]), double(rgb[1]), double(rgb[2])}});
}

}  // namespace

TEST_CASE("the region that has most is lightest, and the one that has least darkest",
          "[job][region]") {
  Rows rows({{20, 25}, {20, 75}, {20, 50}});
  const std::vector<SheetCell> cells = rows.cells();
  REQUIRE(cells.size() == 2);
  const std::vector<Color> ramp = heat_ramp(64);
  // As much of each, so they stand as the map lists them.
  CHECK(cells[0].name == "rust");
  CHECK(cells[0].behind == ", 25.0 to 75.0 %");
  CHECK(color_of_row(cells[0], 0) == css_hex(ramp.front()));
  CHECK(color_of_row(cells[0], 1) == css_hex(ramp.back()));
  CHECK(color_of_row(cells[0], 2) == css_hex(ramp[32]));
  REQUIRE(cells[0].over.labels.size() == 1);
  CHECK(cells[0].over.labels[0].text == "2");
  CHECK(cells[1].name == "unclassified");
  CHECK(color_of_row(cells[1], 0) == css_hex(ramp.back()));
  CHECK(cells[1].over.labels[0].text == "1");
}

TEST_CASE("specks do not say what most is", "[job][region]") {
  std::vector<std::pair<std::uint32_t, double>> regions(10, {20, 20});
  regions[3].second = 40;
  regions.push_back({1, 100});
  Rows rows(regions);
  const std::vector<SheetCell> cells = rows.cells();
  REQUIRE(cells.size() == 2);
  CHECK(cells[1].name == "rust");  // less than what is unclassified
  CHECK(cells[1].behind == ", 20.0 to 40.0 %");
  CHECK(cells[1].over.labels[0].text == "4");
  CHECK(color_of_row(cells[1], 10) == css_hex(heat_ramp(64).back()));
}
