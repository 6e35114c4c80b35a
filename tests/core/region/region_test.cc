#include <catch2/catch.hpp>
#include <map>

#include "core/region/region_map.h"
#include "tests/support/drawn_grid.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

/// The region of each pixel by flooding, numbered by first pixels; -1 for label 0.
std::vector<int> flooded(const LabelGrid& grid, bool corners) {
  std::vector<int> region(grid.labels.size(), -1);
  int next = 0;
  const int w = static_cast<int>(grid.width), h = static_cast<int>(grid.height);
  for (int start = 0; start < w * h; ++start) {
    if (grid.labels[static_cast<std::size_t>(start)] == 0 ||
        region[static_cast<std::size_t>(start)] >= 0)
      continue;
    std::vector<int> open{start};
    region[static_cast<std::size_t>(start)] = next;
    while (!open.empty()) {
      const int at = open.back();
      open.pop_back();
      for (int dy = -1; dy <= 1; ++dy)
        for (int dx = -1; dx <= 1; ++dx) {
          const int x = at % w + dx, y = at / w + dy;
          if (x < 0 || y < 0 || x >= w || y >= h || (!corners && dx != 0 && dy != 0)) continue;
          const auto to = static_cast<std::size_t>(y * w + x);
          if (region[to] >= 0 || grid.labels[to] != grid.labels[static_cast<std::size_t>(at)])
            continue;
          region[to] = next;
          open.push_back(static_cast<int>(to));
        }
    }
    ++next;
  }
  return region;
}

}  // namespace

TEST_CASE("regions are those that flooding finds", "[core][region]") {
  for (unsigned seed = 1; seed <= 30; ++seed) {
    const LabelGrid grid =
        random_grid(1 + seed % 40, 1 + seed * 7 % 30, seed, 1 + seed % 3, 0.2 + 0.02 * seed);
    for (const bool corners : {false, true}) {
      const RegionMap map =
          find_regions(grid, corners ? Connectivity::kEight : Connectivity::kFour);
      const auto expected = flooded(grid, corners);
      std::vector<int> found(grid.labels.size(), -1);
      std::vector<std::uint64_t> pixels(map.regions.size());
      for (const RegionRun& run : map.runs) {
        CHECK(map.regions[run.part].label == run.label);
        for (std::uint32_t x = run.begin; x < run.end; ++x) {
          found[std::size_t{run.y} * grid.width + x] = static_cast<int>(run.part);
          ++pixels[run.part];
        }
      }
      CHECK(found == expected);
      for (std::size_t r = 0; r < pixels.size(); ++r) CHECK(map.regions[r].pixels == pixels[r]);
    }
  }
}

TEST_CASE("corners join regions only when they are asked to", "[core][region]") {
  const LabelGrid grid = drawn({"1..1", ".11.", "2..1"});
  CHECK(find_regions(grid, Connectivity::kEight).regions.size() == 2);
  CHECK(find_regions(grid, Connectivity::kFour).regions.size() == 5);
  const RegionMap all = find_regions(grid, Connectivity::kFour, true);
  CHECK(all.regions.size() == 9);
  CHECK(all.regions[0].at_edge);
}
