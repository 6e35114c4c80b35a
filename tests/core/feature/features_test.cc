// Features: hues as cosine and sine, divisors, and the names and units of both.
#include "core/feature/features.h"

#include <catch2/catch.hpp>
#include <cmath>

#include "core/learn/feature_scaling.h"
#include "core/pixel/block_reader.h"
#include "tests/support/pictures.h"
#include "tests/support/plain_color.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

/// The features of every pixel of an 8-bit RGB row.
std::vector<std::vector<double>> features_of_row(const std::vector<std::uint8_t>& rgb,
                                                 const std::string& channels,
                                                 const std::vector<double>& divisors = {}) {
  PictureInfo info;
  info.shape = {static_cast<std::uint32_t>(rgb.size() / 3), 1, 3, SampleType::kU8};
  const auto stored = bytes_of(rgb);
  BlockReader reader(info, {});
  const FeaturePlan plan(info, channels_named(channels), divisors);
  FeatureEvaluator evaluator(plan);
  evaluator.evaluate(reader.read(stored.data(), 0, info.shape.width));
  std::vector<std::vector<double>> out(info.shape.width);
  for (std::size_t i = 0; i < out.size(); ++i)
    for (const float* values : evaluator.values()) out[i].push_back(static_cast<double>(values[i]));
  return out;
}

}  // namespace

TEST_CASE("a hue enters as cosine and sine times the chroma", "[core][learn]") {
  const auto rgb = random_bytes(3 * 101, 4);
  for (const char* space : {"hsv", "hsl", "lch", "oklch"}) {
    INFO(space);
    const auto found = features_of_row(
        rgb, std::string(space) + ".h," + std::string(space) + "." + (space[0] == 'h' ? "s" : "c"));
    for (std::size_t i = 0; i < found.size(); ++i) {
      REQUIRE(found[i].size() == 3);
      const Triple plain = plain_from_srgb(
          space, {double(rgb[3 * i]), double(rgb[3 * i + 1]), double(rgb[3 * i + 2])});
      const double hue = (space[0] == 'h' ? plain[0] : plain[2]) * M_PI / 180, chroma = plain[1];
      CHECK(found[i][0] == Approx(chroma * std::cos(hue)).margin(2e-3));
      CHECK(found[i][1] == Approx(chroma * std::sin(hue)).margin(2e-3));
      CHECK(found[i][2] == Approx(chroma).margin(1e-3));
    }
  }
}

TEST_CASE("whiteness and blackness leave the chroma of hwb, a gray has none", "[core][learn]") {
  // Full red; half white; gray.
  const auto found = features_of_row({255, 0, 0, 255, 128, 128, 90, 90, 90}, "hwb.h");
  CHECK(found[0][0] == Approx(100));
  CHECK(found[0][1] == Approx(0).margin(1e-4));
  CHECK(found[1][0] == Approx(100 * 127 / 255.0).margin(1e-3));
  CHECK(found[2] == std::vector<double>{0, 0});
}

TEST_CASE("features are divided, and name themselves", "[core][learn]") {
  const auto found = features_of_row({255, 0, 0, 0, 51, 0}, "srgb.r,hsv.h", {2, 10, 5});
  CHECK(found[0][0] == Approx(127.5));
  CHECK(found[0][1] == Approx(10));
  CHECK(found[1][0] == 0);
  CHECK(found[1][1] == Approx(-5));                    // 100 cos 120 / 10
  CHECK(found[1][2] == Approx(20 * std::sqrt(0.75)));  // 100 sin 120 / 5
  const auto features = features_of(channels_named("lab.a,lch.h,hsv.s,file.1"));
  std::vector<std::string> names;
  for (const Feature& feature : features) names.push_back(feature.name());
  CHECK(names == std::vector<std::string>{"lab.a", "lch.h.cos", "lch.h.sin", "hsv.s", "file.1"});
  CHECK(features[3].title() == "hsv.s (%)");
  CHECK(features_of(channels_of(spaces::kLab))[0].title() == "lab.l (white D50)");
  CHECK(features[1].range() == 150);
}

TEST_CASE("divisors are of the pixels that points stand for", "[core][learn]") {
  const float rising[] = {1, 2, 5}, even[] = {7, 7, 7};
  const double weights[] = {1, 2, 1};
  const Points points{3, {rising, even}, weights};
  // About the mean of 1, 2, 2 and 5: (2.25 + 2 * 0.25 + 6.25) / 4.
  CHECK(divisors_of(points, FeatureScaling::kSpread) == std::vector<double>{1.5, 1});
  CHECK(divisors_of(points, FeatureScaling::kRange) == std::vector<double>{4, 1});
  CHECK(divisors_of(points, FeatureScaling::kNone).empty());
}

TEST_CASE("units differ by what they are or by their span", "[core][learn]") {
  const auto differ = [](const char* channels) {
    return units_differ(features_of(channels_named(channels)));
  };
  CHECK_FALSE(differ("lab"));
  CHECK_FALSE(differ("oklab"));
  CHECK_FALSE(differ("hsv"));  // the hue counts in percent of its saturation
  CHECK(differ("hsv.s,srgb.r"));
  CHECK(differ("lab.l,oklab.a"));
}
