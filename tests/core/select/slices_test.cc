#include "core/select/slices.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "core/planes.h"

using namespace chalcedony;

namespace {

std::vector<int> labels_of(const Channel& channel, const std::vector<Slice>& slices,
                           std::vector<float> first, std::vector<float> second = {}) {
  const std::size_t n = first.size();
  first.resize(n + kPlanePadding);
  second.resize(n + kPlanePadding);
  std::vector<Label> labels(n + kPlanePadding);
  make_slicer(channel, slices)->classify({first.data(), second.data()}, n, labels.data());
  return {labels.begin(), labels.begin() + static_cast<std::ptrdiff_t>(n)};
}

}  // namespace

TEST_CASE("slices are half-open, the last one closed", "[core][select][slices]") {
  const Channel l = channel_named("lab.l");
  const std::vector<Slice> slices{{"low", "#000000", 0, 30}, {"high", "#ffffff", 30, 60}};
  CHECK(labels_of(l, slices, {-1, 0, 29.9f, 30, 60, 60.1f, std::nanf("")}) ==
        std::vector<int>{0, 1, 1, 2, 2, 0, 0});
  // At the end of the usual range a slice is closed wherever it stands in the list.
  CHECK(labels_of(l, {{"a", "", 50, 100}, {"b", "", 0, 10}}, {100}) == std::vector<int>{1});
}

TEST_CASE("slices of a hue run through 360, of one name they are one class",
          "[core][select][slices]") {
  const Channel h = channel_named("hsv.h");
  const std::vector<Slice> slices{
      {"red", "", 340, 20}, {"blue", "", 200, 260}, {"red", "", 20, 30}};
  std::vector<float> cosines, sines;
  for (const double degrees : {0.0, 350.0, 19.0, 25.0, 100.0, 230.0}) {
    cosines.push_back(static_cast<float>(50 * std::cos(degrees * 3.14159265358979 / 180)));
    sines.push_back(static_cast<float>(50 * std::sin(degrees * 3.14159265358979 / 180)));
  }
  cosines.push_back(0);  // no hue
  sines.push_back(0);
  CHECK(labels_of(h, slices, cosines, sines) == std::vector<int>{1, 1, 1, 1, 0, 2, 0});
  CHECK(faults_of(h, slices).overlaps.empty());
  CHECK(faults_of(h, {{"a", "", 340, 20}, {"b", "", 10, 50}}).overlaps.size() == 1);
}

TEST_CASE("overlaps and gaps are found", "[core][select][slices]") {
  const Channel l = channel_named("lab.l");
  const auto faults =
      faults_of(l, {{"c", "", 60, 80}, {"a", "", 0, 30}, {"b", "", 20, 50}, {"d", "", 80, 90}});
  REQUIRE(faults.overlaps.size() == 1);
  CHECK(faults.overlaps[0] == std::pair<std::size_t, std::size_t>{1, 2});
  REQUIRE(faults.gaps.size() == 1);
  CHECK(faults.gaps[0] == std::pair<double, double>{50, 60});
}

TEST_CASE("quantile ends hold as many each", "[core][select][slices]") {
  const std::vector<std::uint64_t> counts{0, 10, 10, 20, 0, 40, 0};
  const std::vector<double> edges{0, 1, 2, 3, 4, 5, 6, 7};
  CHECK(quantile_ends(counts, edges, 2) == std::vector<double>{1, 4, 6});
  CHECK(quantile_ends(counts, edges, 1) == std::vector<double>{1, 6});
  CHECK(quantile_ends(counts, edges, 4) == std::vector<double>{1, 3, 4, 6});
}

TEST_CASE("a slice holds a value or not, with nothing between", "[core][select][slices]") {
  const auto slicer = make_slicer(
      channel_named("lab.l"),
      {{"low", "#000000", 0, 30}, {"high", "#ffffff", 30, 60}, {"low", "#000000", 80, 90}});
  CHECK(slicer->classes() == 2);
  PlaneBuffer values(1), distances(2);
  const float lightness[] = {10, 45, 85, 70};
  std::copy_n(lightness, 4, values.plane(0));
  slicer->distances({values.plane(0)}, 4, {distances.plane(0), distances.plane(1)});
  CHECK(std::vector<float>(distances.plane(0), distances.plane(0) + 4) ==
        std::vector<float>{0, 1, 0, 1});
  CHECK(std::vector<float>(distances.plane(1), distances.plane(1) + 4) ==
        std::vector<float>{1, 0, 1, 1});
}
