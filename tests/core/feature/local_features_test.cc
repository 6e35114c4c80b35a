// Features of neighborhoods, held against sums over every window.
#include "core/feature/local_features.h"

#include <catch2/catch.hpp>
#include <cmath>

#include "core/error.h"
#include "core/feature/feature_names.h"
#include "core/feature/features.h"
#include "core/filter/box_moments.h"
#include "core/pixel/memory_source.h"
#include "core/pixel/mirrored.h"
#include "core/pixel/road.h"
#include "tests/support/pictures.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

struct Moments {
  double mean = 0, deviation = 0;
};

/// Of the values in a square around a pixel, those that count.
template <class Value>
Moments plain_moments(std::int64_t x, std::int64_t y, std::int64_t reach, Value value) {
  std::vector<double> values;
  for (std::int64_t v = y - reach; v <= y + reach; ++v)
    for (std::int64_t u = x - reach; u <= x + reach; ++u)
      if (const auto one = value(u, v)) values.push_back(*one);
  Moments moments;
  for (const double v : values) moments.mean += v / static_cast<double>(values.size());
  for (const double v : values)
    moments.deviation +=
        (v - moments.mean) * (v - moments.mean) / static_cast<double>(values.size());
  moments.deviation = std::sqrt(moments.deviation);
  return moments;
}

/// All features of a picture, each in raster order.
std::vector<std::vector<float>> features_of_picture(const PictureInfo& info,
                                                    const std::vector<std::byte>& stored,
                                                    const std::string& names,
                                                    const Counting& counting) {
  const FeaturePlan plan(info, feature_channels_named(names), {}, 0, counting);
  MemorySource source(info.shape, stored);
  RoadOptions road;
  road.threads = 1;
  road.halo = plan.halo();
  std::vector<std::vector<float>> out(plan.size());
  const auto make_worker = [&] {
    return [&, reader = BlockReader(info, counting),
            evaluator = FeatureEvaluator(plan)](const Band& band) mutable {
      reader.for_each_block(band, [&](const Block& block) {
        evaluator.evaluate(block);
        for (std::size_t f = 0; f < out.size(); ++f)
          out[f].insert(out[f].end(), evaluator.values()[f], evaluator.values()[f] + block.size);
      });
      return true;
    };
  };
  travel(source, road, make_worker, [](bool) {});
  return out;
}

}  // namespace

TEST_CASE("local features are the moments of every square", "[core][learn]") {
  PictureInfo info;
  info.shape = {1500, 200, 3, SampleType::kU8};  // several bands
  const auto rgb = random_bytes(3 * info.shape.pixels());
  Counting counting = count_all();
  counting.region = PixelRect{10, 20, 1400, 170};
  const auto found = features_of_picture(
      info, bytes_of(rgb),
      "mean3(file.0),srgb.g,deviation3(file.0),mean9(srgb.b),deviation9(srgb.b)", counting);
  REQUIRE(found.size() == 5);
  const auto sample = [&](std::size_t c) {
    return [&, c](std::int64_t u, std::int64_t v) -> std::optional<double> {
      const std::uint32_t x = mirrored(u, 1500), y = mirrored(v, 200);
      if (!counting.region->contains(x, y)) return std::nullopt;
      return rgb[3 * (std::size_t{y} * 1500 + x) + c];
    };
  };
  const auto picks = random_bytes(4 * 600, 7);
  std::vector<std::pair<std::uint32_t, std::uint32_t>> places{
      {10, 20}, {1409, 189}, {700, 86}, {700, 87}, {700, 88}};
  for (std::size_t i = 0; i + 3 < picks.size(); i += 4)
    places.emplace_back(10 + (picks[i] * 256u + picks[i + 1]) % 1400, 20 + picks[i + 2] % 170);
  bool right = true;
  for (const auto& [x, y] : places) {
    const std::size_t i = std::size_t{y} * 1500 + x;
    const Moments small = plain_moments(x, y, 1, sample(0)),
                  large = plain_moments(x, y, 4, sample(2));
    right = right && found[0][i] == Approx(small.mean) && found[2][i] == Approx(small.deviation) &&
            found[3][i] == Approx(large.mean) && found[4][i] == Approx(large.deviation) &&
            found[1][i] == Approx(*sample(1)(x, y));
  }
  CHECK(right);
  CHECK(std::isnan(found[0][0]));  // nothing near it counts
}

TEST_CASE("pictures smaller than the square are mirrored into it", "[core][learn]") {
  PictureInfo info;
  info.shape = {3, 2, 3, SampleType::kU8};
  const auto rgb = random_bytes(18);
  const auto found =
      features_of_picture(info, bytes_of(rgb), "mean7(srgb.r),deviation7(srgb.r)", count_all());
  for (std::uint32_t y = 0; y < 2; ++y)
    for (std::uint32_t x = 0; x < 3; ++x) {
      const Moments plain =
          plain_moments(x, y, 3, [&](std::int64_t u, std::int64_t v) -> std::optional<double> {
            return rgb[3 * (std::size_t{mirrored(v, 2)} * 3 + mirrored(u, 3))];
          });
      CHECK(found[0][std::size_t{y} * 3 + x] == Approx(plain.mean));
      CHECK(found[1][std::size_t{y} * 3 + x] == Approx(plain.deviation));
    }
}

TEST_CASE("flat and absent values have their moments", "[core][filter]") {
  Tile tile(9, 7);
  for (std::size_t y = 0; y < 7; ++y) std::fill_n(tile.row(y), 9, 77.3f);
  std::vector<float> means(5 * 3), deviations(5 * 3);
  box_moments(tile, 2, 1, means.data(), deviations.data());
  for (std::size_t i = 0; i < means.size(); ++i) {
    CHECK(means[i] == 77.3f);
    CHECK(deviations[i] == Approx(0).margin(1e-4));
  }
  for (std::size_t y = 0; y < 5; ++y) std::fill_n(tile.row(y), 5, std::nanf(""));
  box_moments(tile, 2, 2, means.data(), nullptr);
  CHECK(std::isnan(means[0]));  // columns 0 to 4 of rows 0 to 4
  CHECK(means[1] == 77.3f);     // one column more
  box_moments(tile, 2, 1, means.data(), deviations.data());
  CHECK(std::isnan(deviations[0]));
}

TEST_CASE("features are named as they are made", "[core][learn]") {
  for (const char* name : {"lab.a", "mean5(lab.l)", "deviation255(file.12)", "mean3(gray)"})
    CHECK(feature_channel_named(name).name() == name);
  const auto all = feature_channels_named("lab.l, Deviation5( LAB )");
  REQUIRE(all.size() == 4);
  CHECK(all[1].name() == "deviation5(lab.l)");
  CHECK(all[3].name() == "deviation5(lab.b)");
  CHECK(features_of(all)[1].range() == 50);
  CHECK(features_of(all)[0].range() == 100);
  for (const char* wrong :
       {"mean4(lab.l)", "mean1(lab.l)", "mean257(lab.l)", "mean(lab.l)", "middle5(lab.l)",
        "mean5(hsv.h)", "mean5(lab.q)", "mean5()", "mean5(lab.l", "mean5(mean5(lab.l))",
        "lab.l,mean3(gray),mean3(gray)"}) {
    INFO(wrong);
    CHECK_THROWS_AS(feature_channels_named(wrong), UsageError);
  }
}
