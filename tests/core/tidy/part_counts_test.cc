// How many regions there are at each depth of parting, and which number stands out.
#include "core/tidy/part_counts.h"

#include <catch2/catch.hpp>
#include <stdexcept>
#include <vector>

using namespace chalcedony;

namespace {

/// Regions of these radii, and parts of radius 10 that are so much deeper than their necks.
std::vector<RegionPart> parts_with(const std::vector<double>& radii,
                                   const std::vector<double>& deeper) {
  std::vector<RegionPart> parts;
  for (const double radius : radii) parts.push_back({1, radius});
  for (const double d : deeper) parts.push_back({1, 10, 10 - d});
  return parts;
}

}  // namespace

TEST_CASE("numbers of regions run from no parting to the finest", "[core][tidy]") {
  const PartCounts counts = part_counts(parts_with({12, 9}, {4, 0.2, 2, 4, 0.75}));
  REQUIRE(counts.all.size() == 4);
  CHECK(counts.without().regions == 2);
  CHECK(counts.without().above == 4);
  CHECK(counts.without().to == 12);
  CHECK(counts.all[1].regions == 4);  // two parts go at once
  CHECK(counts.all[1].above == 2);
  CHECK(counts.all[1].to == 4);
  CHECK(counts.all[2].regions == 5);
  CHECK(counts.all[3].regions == 6);  // what is less than half a pixel deeper is none
  CHECK(counts.all[3].above == kLeastDeeper);
  CHECK_THROWS_AS(part_counts({}), std::invalid_argument);
}

TEST_CASE("the number that stays over the widest range stands out", "[core][tidy]") {
  const auto chosen = [](const std::vector<double>& radii, const std::vector<double>& deeper) {
    return part_counts(parts_with(radii, deeper)).choice().regions;
  };
  // Noise below a pixel, necks from 4 on.
  CHECK(chosen({12, 12}, {0.6, 0.7, 4, 5, 6, 7}) == 6);
  // Nothing but noise.
  CHECK(chosen({12, 12}, {0.6, 0.7}) == 2);
  CHECK(chosen({12, 12}, {}) == 2);
  // The gap between 5 and 11 is wider, but a part that is 5 of 12 deeper than its neck is one.
  CHECK(chosen({12, 12}, {0.9, 0.8, 1.5, 5, 11}) == 4);
  // No number stays from anywhere to half as much again.
  CHECK(chosen({4}, {0.6, 0.7, 0.8, 0.9, 1, 1.1, 1.2, 1.3, 1.4, 1.5, 1.6, 2, 2.5, 3}) == 1);
  // A gap that begins at a sixth of the radius is none of rough edges.
  CHECK(chosen({60}, {0.7, 1, 1.4, 2, 2.9, 4.2, 6.1, 9, 16, 18, 20}) == 1);
  CHECK(chosen({60}, {0.7, 1, 1.4, 2, 2.9, 4.2, 6.1, 16, 18, 20}) == 4);
  // Specks do not make large regions untypical.
  std::vector<double> radii(500, 1);
  radii.insert(radii.end(), {20, 20});
  CHECK(chosen(radii, {0.7, 2.8, 2.9}) == 502);
}

TEST_CASE("the middle of a range is a short number inside", "[core][tidy]") {
  CHECK(middle_of({0.5, 6.36, 1}) == 1.8);
  CHECK(middle_of({1, 4, 1}) == 2);
  CHECK(middle_of({100, 400, 1}) == 200);
  for (const auto& [above, to] :
       std::vector<std::pair<double, double>>{{2.991, 2.999}, {0.99, 1.01}, {3, 3.0001}}) {
    const double middle = middle_of({above, to, 1});
    CHECK(middle > above);
    CHECK(middle <= to);
  }
}
