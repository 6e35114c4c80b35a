#include "core/region/region_values.h"

#include <catch2/catch.hpp>
#include <limits>

#include "core/color/css_color.h"

using namespace chalcedony;

namespace {

constexpr float kUnknown = std::numeric_limits<float>::quiet_NaN();

/// Planes of two channels and, for the mean color, of the oklab of these colors.
std::vector<std::vector<float>> planes_of(std::vector<float> first, std::vector<float> second,
                                          const std::vector<std::string>& colors) {
  std::vector<std::vector<float>> planes{std::move(first), std::move(second), {}, {}, {}};
  for (const std::string& color : colors) {
    const auto oklab = css_color(color).in(spaces::kOklab);
    for (std::size_t c = 0; c < 3; ++c) planes[2 + c].push_back(static_cast<float>(oklab[c]));
  }
  return planes;
}

}  // namespace

TEST_CASE("regions have means, medians and spreads of their channels", "[core][region]") {
  RegionValues values({{&spaces::kLab, 0}, {&spaces::kHsv, 0}}, 3);
  REQUIRE(values.channels().size() == 5);
  values.add(0,
             planes_of({10, 20, 90, kUnknown}, {350, 10, 20, 5},
                       {"#ff0000", "#ff0000", "#ff0000", "#ff0000"}),
             0, 4);
  values.add(1, planes_of({1, 2}, {90, 90}, {"#000000", "#ffffff"}), 1, 2);
  values.add(1, planes_of({4, 5}, {kUnknown, 90}, {"#ffffff", "#000000"}), 0, 1);
  const std::vector<RegionColors> regions = values.take_colors();
  REQUIRE(regions.size() == 3);
  CHECK(*regions[0].channels[0].mean == Approx(40));
  CHECK(*regions[0].channels[0].median == Approx(20).margin(0.001));
  CHECK(*regions[0].channels[0].spread == Approx(std::sqrt(3800.0 / 3)));
  CHECK(*regions[0].channels[1].mean == Approx(6.25).margin(0.05));  // through red
  CHECK_FALSE(regions[0].channels[1].median);
  CHECK(regions[0].mean_color == "#ff0000");
  CHECK(*regions[1].channels[0].mean == Approx(3));
  CHECK(*regions[1].channels[0].median == Approx(3).margin(0.001));  // between two
  CHECK(*regions[1].channels[1].mean == Approx(90));
  CHECK(regions[1].mean_color == "#ffffff");
  CHECK_FALSE(regions[2].channels[0].mean);
  CHECK(regions[2].mean_color.empty());
}
