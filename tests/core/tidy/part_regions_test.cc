// Touching regions parted at their necks, and the distances that this hangs on.
#include "core/tidy/part_regions.h"
#include "core/tidy/apply_step.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <random>
#include <set>

#include "core/arena.h"
#include "core/region/region_map.h"
#include "core/tidy/column_distances.h"
#include "core/tidy/part_counts.h"
#include "core/tidy/squared_distances.h"
#include "core/tidy/tidy_steps.h"
#include "tests/support/drawn_grid.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

struct Disk {
  double x, y, radius;
};

LabelGrid disks(std::uint32_t width, std::uint32_t height, const std::vector<Disk>& all,
                Label label = 1) {
  LabelGrid grid(width, height);
  for (std::uint32_t y = 0; y < height; ++y)
    for (std::uint32_t x = 0; x < width; ++x)
      for (const Disk& disk : all)
        if (std::hypot(x + 0.5 - disk.x, y + 0.5 - disk.y) <= disk.radius) grid.row(y)[x] = label;
  return grid;
}

std::size_t regions_in(const LabelGrid& grid) {
  return find_regions(grid, Connectivity::kEight).regions.size();
}

LabelGrid parted(LabelGrid grid, double deeper) {
  part_regions(grid, deeper);
  return grid;
}

std::size_t lost(const LabelGrid& before, const LabelGrid& after) {
  std::size_t pixels = 0;
  for (std::size_t i = 0; i < before.labels.size(); ++i) {
    pixels += before.labels[i] != after.labels[i];
    CHECK((after.labels[i] == 0 || after.labels[i] == before.labels[i]));
  }
  return pixels;
}

/// Blobs: where noise is high, smoothed so many pixels far.
LabelGrid blobs_of(int width, int height, int far, unsigned seed) {
  const LabelGrid noise =
      random_grid(static_cast<std::uint32_t>(width), static_cast<std::uint32_t>(height), seed);
  LabelGrid blobs(noise.width, noise.height);
  for (int y = 0; y < height; ++y)
    for (int x = 0; x < width; ++x) {
      int sum = 0, of = 0;
      for (int ny = std::max(0, y - far); ny <= std::min(height - 1, y + far); ++ny)
        for (int nx = std::max(0, x - far); nx <= std::min(width - 1, x + far); ++nx, ++of)
          sum += noise.row(static_cast<std::size_t>(ny))[nx];
      blobs.row(static_cast<std::size_t>(y))[x] = 2 * sum > of;
    }
  return blobs;
}

/// Disks that overlap by up to a quarter of their radii, with lobes all around.
std::vector<Disk> plate_of(std::size_t count, double least, double most, unsigned seed) {
  std::mt19937 random(seed);
  const auto uniform = [&](double low, double high) {
    return low + (high - low) * static_cast<double>(random()) / 4294967296.0;
  };
  std::vector<Disk> laid;
  while (laid.size() < count) {
    const double radius = uniform(least, most);
    const Disk disk{uniform(30, 370), uniform(30, 270), radius};
    if (std::all_of(laid.begin(), laid.end(), [&](const Disk& other) {
          return std::hypot(disk.x - other.x, disk.y - other.y) >
                 0.75 * (disk.radius + other.radius);
        }))
      laid.push_back(disk);
  }
  return laid;
}

LabelGrid rough_disks(const std::vector<Disk>& all) {
  LabelGrid grid(400, 300);
  for (std::uint32_t y = 0; y < grid.height; ++y)
    for (std::uint32_t x = 0; x < grid.width; ++x)
      for (const Disk& disk : all) {
        const double dx = x + 0.5 - disk.x, dy = y + 0.5 - disk.y, turn = std::atan2(dy, dx);
        const double lobes = std::sin(3 * turn + disk.x) + std::sin(5 * turn + disk.y) / 2 +
                             std::sin(9 * turn + disk.radius) / 3;
        if (std::hypot(dx, dy) <= disk.radius * (1 + 0.04 * lobes)) grid.row(y)[x] = 1;
      }
  return grid;
}

/// How many parts there are, level by level: regions of what is at least so deep, from the deepest
/// level on. Of those that become one at a level the deepest goes on; another counts when it is
/// deep enough there.
std::size_t plain_parts(const LabelGrid& grid, double deeper) {
  Flags inside(grid.labels.size()), outside(grid.labels.size());
  for (std::size_t i = 0; i < inside.size(); ++i) {
    inside[i] = grid.labels[i] != 0;
    outside[i] = grid.labels[i] == 0;
  }
  const auto squares = squared_distances(outside, grid.width);
  std::set<std::uint32_t, std::greater<>> levels;
  for (std::size_t i = 0; i < inside.size(); ++i)
    if (inside[i]) levels.insert(squares[i]);
  std::vector<std::size_t> peaks;  // the deepest pixel of each part that goes on
  std::size_t counted = 0;
  for (const std::uint32_t level : levels) {
    LabelGrid above(grid.width, grid.height);
    for (std::size_t i = 0; i < inside.size(); ++i)
      above.labels[i] = inside[i] && squares[i] >= level;
    const RegionMap map = find_regions(above, Connectivity::kEight);
    std::vector<std::uint32_t> region_of(inside.size());
    for (const RegionRun& run : map.runs)
      std::fill_n(region_of.begin() + static_cast<std::ptrdiff_t>(run.y * grid.width + run.begin),
                  run.end - run.begin, run.part);
    std::vector<std::vector<std::size_t>> of_region(map.regions.size());
    for (const std::size_t peak : peaks) of_region[region_of[peak]].push_back(peak);
    for (std::size_t i = 0; i < inside.size(); ++i)
      if (above.labels[i] && of_region[region_of[i]].empty()) of_region[region_of[i]].push_back(i);
    peaks.clear();
    for (auto& together : of_region) {
      std::sort(together.begin(), together.end(),
                [&](std::size_t a, std::size_t b) { return squares[a] > squares[b]; });
      for (std::size_t p = 1; p < together.size(); ++p)
        counted += std::sqrt(squares[together[p]]) - std::sqrt(level) >= deeper;
      peaks.push_back(together.front());
    }
  }
  return counted + peaks.size();
}

}  // namespace

TEST_CASE("squared distances are those to the nearest pixel that is on", "[core][tidy]") {
  for (const unsigned seed : {1u, 2u, 3u}) {
    const std::size_t width = 31 + seed, height = 19;
    const LabelGrid grid = random_grid(static_cast<std::uint32_t>(width), height, seed, 1, 0.96);
    const Flags on(grid.labels.begin(), grid.labels.end());
    const auto squares = squared_distances(on, width);
    for (std::size_t i = 0; i < on.size(); ++i) {
      double nearest = double{kFarAway} * kFarAway;
      for (std::size_t o = 0; o < on.size(); ++o) {
        if (!on[o]) continue;
        const double dx = static_cast<double>(i % width) - static_cast<double>(o % width);
        const double dy = static_cast<double>(i / width) - static_cast<double>(o / width);
        nearest = std::min(nearest, dx * dx + dy * dy);
      }
      CHECK(squares[i] == nearest);
    }
  }
  const auto none = squared_distances(Flags(12), 4);
  CHECK(std::all_of(none.begin(), none.end(),
                    [](std::uint32_t s) { return s == std::uint32_t{kFarAway} * kFarAway; }));
}

TEST_CASE("disks that touch are parted across their neck", "[core][tidy]") {
  const LabelGrid two = disks(60, 30, {{16, 15, 12}, {38, 15, 12}});
  REQUIRE(regions_in(two) == 1);
  const LabelGrid apart = parted(two, 3);
  CHECK(regions_in(apart) == 2);
  // The neck is some 9 pixels high; the cut runs down its middle.
  CHECK(lost(two, apart) >= 8);
  CHECK(lost(two, apart) <= 12);
  for (std::uint32_t y = 0; y < 30; ++y)
    for (std::uint32_t x = 0; x < 60; ++x)
      if (two.row(y)[x] != apart.row(y)[x]) CHECK(std::abs(static_cast<int>(x) - 27) <= 1);
  // The disks are 12 pixels deep, the neck some 6.
  CHECK(regions_in(parted(two, 5)) == 2);
  CHECK(lost(two, parted(two, 7)) == 0);
  CHECK(regions_in(parted(disks(90, 70, {{20, 20, 15}, {48, 20, 15}, {34, 44, 15}}), 3)) == 3);
}

TEST_CASE("what has no neck stays whole", "[core][tidy]") {
  CHECK(lost(disks(50, 50, {{25, 25, 20}}), parted(disks(50, 50, {{25, 25, 20}}), 1)) == 0);
  LabelGrid box(40, 24);
  for (std::uint32_t y = 3; y < 20; ++y) std::fill(box.row(y) + 4, box.row(y) + 35, Label{1});
  CHECK(lost(box, parted(box, 0.5)) == 0);
  LabelGrid full(20, 10);
  std::fill(full.labels.begin(), full.labels.end(), Label{2});
  CHECK(lost(full, parted(full, 1)) == 0);
  const LabelGrid none(7, 3);
  CHECK(lost(none, parted(none, 1)) == 0);
}

TEST_CASE("each class is parted by itself, also at the edge of the picture", "[core][tidy]") {
  LabelGrid both = disks(60, 60, {{16, 15, 12}, {38, 15, 12}}, 1);
  const LabelGrid lower = disks(60, 60, {{14, 50, 12}, {36, 50, 12}}, 7);
  for (std::size_t i = 0; i < both.labels.size(); ++i)
    if (both.labels[i] == 0) both.labels[i] = lower.labels[i];
  const LabelGrid apart = parted(both, 3);
  CHECK(regions_in(apart) == 4);
  CHECK(lost(both, apart) < 30);
  // Half of each disk lies beyond the picture, and so does half of the neck.
  CHECK(regions_in(parted(disks(60, 13, {{16, 0, 12}, {38, 0, 12}}), 3)) == 2);
}

TEST_CASE("parts are those of all levels, on any number of threads", "[core][tidy]") {
  for (unsigned seed = 1; seed <= 6; ++seed) {
    const LabelGrid blobs = blobs_of(48, 40, 3, seed);
    for (const double deeper : {0.4, 1.0, 2.0}) {
      INFO(seed << " " << deeper);
      const LabelGrid apart = parted(blobs, deeper);
      lost(blobs, apart);
      CHECK(regions_in(apart) == plain_parts(blobs, deeper));
      LabelGrid on_one = blobs;
      in_arena(1, [&] { part_regions(on_one, deeper); });
      CHECK(on_one.labels == apart.labels);
    }
  }
}

TEST_CASE("no crumbs are left beside cuts, however rough the regions are", "[core][tidy]") {
  for (unsigned seed = 1; seed <= 6; ++seed) {
    const LabelGrid rough = blobs_of(200, 150, 2, seed);
    Flags outside(rough.labels.size());
    for (std::size_t i = 0; i < outside.size(); ++i) outside[i] = rough.labels[i] == 0;
    const auto squares = squared_distances(outside, rough.width);
    const RegionMap before = find_regions(rough, Connectivity::kEight);
    std::vector<std::uint32_t> region_of(outside.size());
    for (const RegionRun& run : before.runs)
      for (std::uint32_t x = run.begin; x < run.end; ++x)
        region_of[run.y * rough.width + x] = run.part;
    for (const double deeper : {1.5, 2.0}) {
      const RegionMap after = find_regions(parted(rough, deeper), Connectivity::kEight);
      std::vector<double> deepest(after.regions.size());
      std::vector<std::uint32_t> was(after.regions.size());
      for (const RegionRun& run : after.runs)
        for (std::uint32_t x = run.begin; x < run.end; ++x) {
          const std::size_t i = run.y * rough.width + x;
          deepest[run.part] = std::max(deepest[run.part], std::sqrt(double{1} * squares[i]));
          was[run.part] = region_of[i];
        }
      for (std::size_t r = 0; r < after.regions.size(); ++r) {
        const bool whole = after.regions[r].pixels == before.regions[was[r]].pixels;
        INFO(seed << " " << deeper << " " << after.regions[r].pixels);
        CHECK((whole || deepest[r] > deeper));
      }
    }
  }
}

TEST_CASE("parts say how large they are, where they lie and how wide their necks are",
          "[core][tidy]") {
  const auto parts = parts_of_regions(disks(60, 30, {{16, 15, 12}, {38, 15, 10}}, 3));
  std::vector<RegionPart> large;
  for (const RegionPart& part : parts)
    if (part.deeper() > 1) large.push_back(part);
  REQUIRE(large.size() == 2);
  CHECK(large[0].label == 3);
  CHECK(large[0].neck == 0);  // the deepest
  CHECK(large[0].radius == Approx(12).margin(0.7));
  CHECK(large[0].x == Approx(16).margin(1));
  CHECK(large[0].y == Approx(15).margin(1));
  CHECK(large[1].radius == Approx(10).margin(0.7));
  CHECK(large[1].x == Approx(38).margin(1));
  // Where circles of 12 and 10 meet whose middles are 22 apart, they touch in a point.
  CHECK(large[1].neck < 3.5);
  CHECK(parts_of_regions(LabelGrid(7, 3)).empty());
  // A region without anything outside is no wider than the picture.
  LabelGrid full(40, 12);
  std::fill(full.labels.begin(), full.labels.end(), Label{2});
  const auto all = parts_of_regions(full);
  REQUIRE(all.size() == 1);
  CHECK(all[0].radius == 40);
  CHECK(part_counts(all).without().to == 40);
}

TEST_CASE("there are as many regions as parts that are deep enough", "[core][tidy]") {
  for (unsigned seed = 1; seed <= 6; ++seed) {
    const LabelGrid blobs = blobs_of(90, 70, 3, seed);
    const auto parts = parts_of_regions(blobs);
    for (const PartCount& count : part_counts(parts).all) {
      INFO(seed << " " << count.above << " " << count.to);
      CHECK(regions_in(parted(blobs, count.to)) == count.regions);
      CHECK(regions_in(parted(blobs, (count.above + count.to) / 2)) == count.regions);
    }
    std::vector<RegionPart> on_one;
    in_arena(1, [&] { on_one = parts_of_regions(blobs); });
    REQUIRE(on_one.size() == parts.size());
    for (std::size_t i = 0; i < parts.size(); ++i) {
      CHECK(on_one[i].x == parts[i].x);
      CHECK(on_one[i].neck == parts[i].neck);
    }
  }
}

TEST_CASE("rough disks that touch are counted right or nearly so", "[core][tidy]") {
  std::size_t right = 0;
  for (unsigned seed = 1; seed <= 10; ++seed) {
    constexpr std::size_t kDisks = 40;
    const LabelGrid plate = rough_disks(plate_of(kDisks, 13, 18, seed));
    const PartCounts counts = part_counts(parts_of_regions(plate));
    INFO(seed << ": " << counts.without().regions << " regions");
    CHECK(counts.without().regions < 32);
    const auto missed = static_cast<int>(kDisks) - static_cast<int>(counts.choice().regions);
    CHECK(std::abs(missed) <= 2);
    right += missed == 0 ? 1 : 0;
  }
  CHECK(right >= 9);
}

TEST_CASE("the step part is read as it is written", "[core][tidy]") {
  const auto steps = parse_tidy_steps("drop 20; part 2.5");
  REQUIRE(steps.size() == 2);
  CHECK(steps[1].deeper == 2.5);
  const LabelGrid two = disks(60, 30, {{16, 15, 12}, {38, 15, 12}});
  LabelGrid by_step = two;
  apply_step(by_step, steps[1]);
  CHECK(by_step.labels == parted(two, 2.5).labels);
  CHECK_THROWS_WITH(
      parse_tidy_steps("part"),
      Catch::Contains(
          "the step 'part' lacks how many pixels parts are larger in radius than their neck"));
  CHECK_THROWS_WITH(parse_tidy_steps("part much"),
                    Catch::Contains("'much' is not how many pixels"));
  CHECK_THROWS_WITH(parse_tidy_steps("part 0"),
                    Catch::Contains("in the step 'part 0', '0' parts regions everywhere"));
}
