#include "core/region/region_meter.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

#include "core/learn/sample_shape.h"
#include "core/region/outlines.h"
#include "tests/support/drawn_grid.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

constexpr double kPi = std::numbers::pi, kRoot2 = std::numbers::sqrt2;

std::vector<RegionMeasures> measured(const LabelGrid& grid,
                                     Connectivity connectivity = Connectivity::kEight) {
  RegionMeter meter(grid.width, grid.height, connectivity);
  for (std::size_t y = 0; y < grid.height; ++y) meter.add_row(grid.row(y));
  return meter.finish();
}

/// The pixels of one region as a grid of its own, by its place in find_regions().
LabelGrid alone(const LabelGrid& grid, const RegionMap& map, std::uint32_t region) {
  LabelGrid out(grid.width, grid.height);
  for (const RegionRun& run : map.runs)
    if (run.part == region)
      for (std::uint32_t x = run.begin; x < run.end; ++x) out.row(run.y)[x] = 1;
  return out;
}

/// Crofton's formula by counting how often lines in four directions change from in to out.
double plain_perimeter(const LabelGrid& grid) {
  const auto in = [&](int x, int y) {
    return x >= 0 && y >= 0 && x < static_cast<int>(grid.width) &&
           y < static_cast<int>(grid.height) && grid.row(static_cast<std::size_t>(y))[x];
  };
  double sum = 0;
  for (int y = -1; y <= static_cast<int>(grid.height); ++y)
    for (int x = -1; x <= static_cast<int>(grid.width); ++x) {
      sum += in(x, y) != in(x + 1, y);
      sum += in(x, y) != in(x, y + 1);
      sum += (in(x, y) != in(x + 1, y + 1)) / kRoot2;
      sum += (in(x + 1, y) != in(x, y + 1)) / kRoot2;
    }
  return kPi / 8 * sum;
}

std::uint64_t plain_holes(const LabelGrid& grid) {
  // A frame of free pixels joins all that is outside.
  LabelGrid free(grid.width + 2, grid.height + 2);
  for (auto& label : free.labels) label = 1;
  for (std::size_t y = 0; y < grid.height; ++y)
    for (std::size_t x = 0; x < grid.width; ++x) free.row(y + 1)[x + 1] = grid.row(y)[x] ? 0 : 1;
  return find_regions(free, Connectivity::kFour).regions.size() - 1;
}

}  // namespace

TEST_CASE("one pixel and a bar measure what a hand finds", "[core][region]") {
  const auto all = measured(drawn({"1.....", "......", "..2222", "......"}));
  REQUIRE(all.size() == 2);
  const RegionMeasures &dot = all[0], &bar = all[1];
  CHECK(dot.pixels == 1);
  CHECK(dot.center_x == 0.5);
  CHECK(dot.center_y == 0.5);
  CHECK(dot.perimeter == Approx(kPi / 8 * (4 + 4 / kRoot2)));
  CHECK(dot.equivalent_diameter == Approx(std::sqrt(4 / kPi)));
  CHECK(dot.roundness == 1);
  CHECK(dot.major_axis == Approx(4 / std::sqrt(12.0)));
  CHECK(dot.at_edge);
  CHECK(bar.label == 2);
  CHECK(bar.center_x == 4);
  CHECK(bar.center_y == 2.5);
  CHECK(bar.left == 2);
  CHECK(bar.top == 2);
  CHECK(bar.width == 4);
  CHECK(bar.height == 1);
  CHECK(bar.perimeter == Approx(kPi / 8 * (2 + 8 + 16 / kRoot2)));
  // A rectangle's second moments are a twelfth of the squares of its sides.
  CHECK(bar.major_axis == Approx(4 * 4 / std::sqrt(12.0)));
  CHECK(bar.minor_axis == Approx(4 / std::sqrt(12.0)));
  CHECK(bar.orientation == 0);
  CHECK(bar.holes == 0);
}

TEST_CASE("a disk is round, a slanted bar says its angle", "[core][region]") {
  LabelGrid disk(101, 101);
  for (int y = 0; y < 101; ++y)
    for (int x = 0; x < 101; ++x)
      if ((x - 50) * (x - 50) + (y - 50) * (y - 50) <= 40 * 40)
        disk.row(static_cast<std::size_t>(y))[x] = 1;
  const RegionMeasures round = measured(disk)[0];
  CHECK(round.perimeter == Approx(2 * kPi * 40).epsilon(0.02));
  CHECK(round.roundness > 0.97);
  CHECK(round.equivalent_diameter == Approx(80).epsilon(0.01));
  CHECK(round.major_axis == Approx(80).epsilon(0.01));
  CHECK_FALSE(round.at_edge);
  CHECK(measured(drawn({"1..", ".1.", "..1"}))[0].orientation == Approx(135));
  CHECK(measured(drawn({"..1", ".1.", "1.."}))[0].orientation == Approx(45));
  CHECK(measured(drawn({".1.", ".1.", ".1."}))[0].orientation == Approx(90));
}

TEST_CASE("measures of random regions are those of a plain count", "[core][region]") {
  for (unsigned seed = 1; seed <= 12; ++seed) {
    const LabelGrid grid = random_grid(30, 24, seed, 2, 0.25 + 0.02 * seed);
    const RegionMap map = find_regions(grid, Connectivity::kEight);
    const auto all = measured(grid);
    REQUIRE(all.size() == map.regions.size());
    for (std::uint32_t r = 0; r < all.size(); ++r) {
      const LabelGrid one = alone(grid, map, r);
      CHECK(all[r].pixels == map.regions[r].pixels);
      CHECK(all[r].label == map.regions[r].label);
      CHECK(all[r].at_edge == map.regions[r].at_edge);
      CHECK(all[r].holes == plain_holes(one));
      CHECK(all[r].perimeter == Approx(plain_perimeter(one)));
      double x = 0, y = 0;
      for (std::size_t py = 0; py < one.height; ++py)
        for (std::size_t px = 0; px < one.width; ++px)
          if (one.row(py)[px]) {
            x += static_cast<double>(px) + 0.5;
            y += static_cast<double>(py) + 0.5;
          }
      CHECK(all[r].center_x == Approx(x / static_cast<double>(all[r].pixels)));
      CHECK(all[r].center_y == Approx(y / static_cast<double>(all[r].pixels)));
    }
  }
}

TEST_CASE("parts lead to their regions in a second pass", "[core][region]") {
  const LabelGrid grid = drawn({"1.1.1", "1.1.1", "111.1", "....1", "22.11"});
  RegionMeter meter(5, 5, Connectivity::kEight);
  for (std::size_t y = 0; y < 5; ++y) meter.add_row(grid.row(y));
  const auto all = meter.finish();
  REQUIRE(all.size() == 3);
  std::vector<std::uint64_t> pixels(3);
  RunLinker again(5, Connectivity::kEight);
  for (std::size_t y = 0; y < 5; ++y)
    for (const RegionRun& run : again.add_row(grid.row(y)))
      pixels[meter.region_of_part()[run.part]] += run.end - run.begin;
  for (std::size_t r = 0; r < 3; ++r) CHECK(pixels[r] == all[r].pixels);
}

TEST_CASE("outlines hold exactly the pixels of their regions", "[core][region]") {
  const RegionMap ring = find_regions(drawn({"111", "1.1", "111"}), Connectivity::kEight);
  const auto rings = outlines_of(ring, 3, 3, Connectivity::kEight)[0];
  REQUIRE(rings.size() == 2);
  CHECK(rings[0] == Ring{{0, 0}, {3, 0}, {3, 3}, {0, 3}, {0, 0}});
  CHECK(rings[1].size() == 5);
  for (unsigned seed = 1; seed <= 12; ++seed) {
    const LabelGrid grid = random_grid(25, 20, seed, 2, 0.3 + 0.02 * seed);
    for (const Connectivity connectivity : {Connectivity::kFour, Connectivity::kEight}) {
      const RegionMap map = find_regions(grid, connectivity);
      const auto outlines = outlines_of(map, 25, 20, connectivity);
      SampleSet samples;
      for (std::size_t r = 0; r < outlines.size(); ++r) {
        SampleShape shape;
        shape.sample_class = samples.class_named(std::to_string(r));
        for (const Ring& corners : outlines[r]) {
          auto& out = shape.rings.emplace_back();
          for (const auto& [x, y] : corners) out.push_back({double(x), double(y)});
        }
        samples.shapes.push_back(shape);
      }
      std::vector<std::size_t> drawn_regions(grid.labels.size(), ~std::size_t{0}),
          expected(grid.labels.size(), ~std::size_t{0});
      for (const SampleRun& run : sample_runs(samples, 25, 20))
        for (std::uint64_t i = run.begin; i < run.end; ++i) drawn_regions[i] = run.sample_class;
      for (const RegionRun& run : map.runs)
        for (std::uint32_t x = run.begin; x < run.end; ++x)
          expected[std::size_t{run.y} * 25 + x] = run.part;
      CHECK(drawn_regions == expected);
    }
  }
}
