// Cropping, scaling and turning of pictures in memory, by hand and against plain second ways.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>
#include <numeric>
#include <random>

#include "core/pixel/memory_source.h"
#include "core/reframe/cropped_rows.h"
#include "core/reframe/scaled_rows.h"
#include "core/reframe/turned_rows.h"
#include "tests/support/instruction_sets.h"
#include "tests/support/pictures.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

PictureInfo gray_info(std::uint32_t width, std::uint32_t height, std::uint32_t channels = 1) {
  PictureInfo info;
  info.shape = {width, height, channels, SampleType::kU8};
  if (channels == 2 || channels == 4) info.alpha = AlphaKind::kStraight;
  return info;
}

std::unique_ptr<RowSource> memory(const PictureInfo& info,
                                  const std::vector<std::uint8_t>& samples) {
  return std::make_unique<MemorySource>(info.shape, bytes_of(samples));
}

/// All rows, a few at a time.
std::vector<std::uint8_t> rows_of(RowSource& source, std::uint32_t at_once = 3) {
  const RasterShape& shape = source.shape();
  std::vector<std::uint8_t> out(shape.row_bytes() * shape.height);
  for (std::uint32_t y = 0; y < shape.height; y += at_once)
    source.read_rows(std::min(at_once, shape.height - y),
                     reinterpret_cast<std::byte*>(out.data() + y * shape.row_bytes()));
  return out;
}

std::vector<std::uint8_t> scaled(const PictureInfo& info, const std::vector<std::uint8_t>& samples,
                                 const Scaling& scaling) {
  ScaledRows rows(memory(info, samples), info, scaling);
  const auto once = rows_of(rows);
  rows.rewind();
  CHECK(rows_of(rows, 1000) == once);
  return once;
}

/// Keys' cubic with a = -1/2, as published.
double cubic(double x) {
  x = std::abs(x);
  if (x < 1) return 1.5 * x * x * x - 2.5 * x * x + 1;
  return x < 2 ? -0.5 * x * x * x + 2.5 * x * x - 4 * x + 2 : 0;
}

/// The stored value of channel c at (x, y) of a picture turned by `degrees`, worked out in double
/// from the old pixels; around them is black.
template <class Sample>
double plain_turned(const std::vector<Sample>& old, const RasterShape& from, const RasterShape& to,
                    double degrees, std::uint32_t x, std::uint32_t y, std::uint32_t c) {
  const double angle = degrees * std::numbers::pi / 180;
  const double across = x + 0.5 - to.width / 2.0, down = y + 0.5 - to.height / 2.0;
  const double old_x = across * std::cos(angle) + down * std::sin(angle) + from.width / 2.0 - 0.5;
  const double old_y = down * std::cos(angle) - across * std::sin(angle) + from.height / 2.0 - 0.5;
  double sum = 0;  // the fill is 0
  const auto near = [](double place) { return static_cast<int>(std::floor(place)) - 1; };
  for (int row = near(old_y); row < near(old_y) + 4; ++row)
    for (int column = near(old_x); column < near(old_x) + 4; ++column) {
      if (row < 0 || column < 0 || row >= int(from.height) || column >= int(from.width)) continue;
      const std::size_t pixel =
          static_cast<std::size_t>(row) * from.width + static_cast<std::size_t>(column);
      sum += cubic(old_x - column) * cubic(old_y - row) *
             static_cast<double>(old[pixel * from.channels + c]);
    }
  return sum;
}

/// A random picture turned, held against the plain way.
template <class Sample>
void check_turned(double degrees, SampleType sample, std::uint32_t channels, double most,
                  double margin) {
  // Rows longer than what is worked on at once.
  PictureInfo info = gray_info(97, 29, channels);
  info.shape.sample = sample;
  info.full_scale = most;
  std::mt19937 random(channels);
  std::vector<Sample> old(info.shape.pixels() * channels);
  for (Sample& value : old) value = static_cast<Sample>(random() % 256 * most / 255);
  TurnedRows turned(std::make_unique<MemorySource>(info.shape, bytes_of(old)), info, degrees,
                    {false, {{0, 0, 0}}});
  const RasterShape& to = turned.shape();
  std::vector<Sample> rows(to.pixels() * channels);
  turned.read_rows(to.height, reinterpret_cast<std::byte*>(rows.data()));
  for (std::uint32_t y = 0; y < to.height; ++y)
    for (std::uint32_t x = 0; x < to.width; ++x)
      for (std::uint32_t c = 0; c < channels; ++c) {
        double expected = plain_turned(old, info.shape, to, degrees, x, y, c);
        if (sample != SampleType::kF32) expected = std::clamp(expected, 0.0, most);
        const double made = static_cast<double>(rows[(y * to.width + x) * channels + c]);
        if (std::abs(made - expected) > margin)
          FAIL(x << "," << y << ": " << made << " for " << expected);
      }
}

}  // namespace

TEST_CASE("a crop is the rectangle, twice", "[core][reframe]") {
  const PictureInfo info = gray_info(4, 3);
  std::vector<std::uint8_t> samples(12);
  std::iota(samples.begin(), samples.end(), std::uint8_t{0});
  CroppedRows crop(memory(info, samples), {1, 1, 2, 2});
  CHECK(crop.shape() == RasterShape{2, 2, 1, SampleType::kU8});
  CHECK(rows_of(crop, 1) == std::vector<std::uint8_t>{5, 6, 9, 10});
  crop.rewind();
  CHECK(rows_of(crop) == std::vector<std::uint8_t>{5, 6, 9, 10});
}

TEST_CASE("fewer pixels are averages over the area they cover", "[core][reframe]") {
  // 3 across to 2: each new pixel covers one and a half old ones.
  CHECK(scaled(gray_info(3, 1), {0, 90, 240}, {2, 1}) == std::vector<std::uint8_t>{30, 190});
  // 2x2 to 1x1.
  CHECK(scaled(gray_info(2, 2), {10, 20, 30, 60}, {1, 1}) == std::vector<std::uint8_t>{30});
  // A plain second way on a large one, a whole number of old pixels under each new one.
  const auto samples = random_bytes(120 * 90);
  const auto small = scaled(gray_info(120, 90), samples, {24, 30});
  for (std::uint32_t y = 0; y < 30; ++y)
    for (std::uint32_t x = 0; x < 24; ++x) {
      int sum = 0;
      for (std::uint32_t j = 0; j < 3; ++j)
        for (std::uint32_t i = 0; i < 5; ++i) sum += samples[(3 * y + j) * 120 + 5 * x + i];
      REQUIRE(std::abs(small[y * 24 + x] - sum / 15.0) <= 0.501);
    }
}

TEST_CASE("averages of light are brighter than averages of numbers", "[core][reframe]") {
  Scaling scaling{1, 1};
  scaling.linear_light = true;
  // Half of full light is 188 in sRGB (IEC 61966-2-1).
  CHECK(scaled(gray_info(2, 1), {0, 255}, scaling) == std::vector<std::uint8_t>{188});
  CHECK(scaled(gray_info(2, 1, 3), {0, 0, 0, 255, 255, 255}, scaling) ==
        std::vector<std::uint8_t>{188, 188, 188});
}

TEST_CASE("transparent pixels lend no color to a smaller picture", "[core][reframe]") {
  CHECK(scaled(gray_info(2, 1, 2), {200, 255, 0, 0}, {1, 1}) ==
        std::vector<std::uint8_t>{200, 128});
  CHECK(scaled(gray_info(2, 1, 2), {200, 0, 10, 0}, {1, 1}) == std::vector<std::uint8_t>{0, 0});
}

TEST_CASE("weights of new pixels add up to 1 and keep what is even", "[core][reframe]") {
  for (const Interpolation by : {Interpolation::kBicubic, Interpolation::kLanczos})
    for (const auto& [in, out] : {std::pair{7u, 7u}, {7u, 20u}, {1u, 5u}, {100u, 33u}, {3u, 2u}}) {
      for (const Taps& taps : taps_along(in, out, by)) {
        CHECK(std::accumulate(taps.weights.begin(), taps.weights.end(), 0.0) == Approx(1));
        CHECK(taps.first + taps.weights.size() <= in);
      }
    }
  // Keys' cubic gives straight lines back.
  const auto taps = taps_along(10, 20, Interpolation::kBicubic);
  double place = 0;
  for (std::size_t t = 0; t < taps[9].weights.size(); ++t)
    place += double{taps[9].weights[t]} * static_cast<double>(taps[9].first + t);
  CHECK(place == Approx(4.25));
  CHECK(scaled(gray_info(1, 1), {77}, {4, 4}) == std::vector<std::uint8_t>(16, 77));
}

TEST_CASE("the four weights around a place are those of the cubic", "[core][reframe]") {
  // Scaling by 8 places new pixels at odd sixteenths; far from the ends its weights are Keys' own.
  const auto taps = taps_along(20, 160, Interpolation::kBicubic);
  for (const std::size_t pixel : {80u, 83u, 87u}) {
    const double center = (static_cast<double>(pixel) + 0.5) / 8 - 0.5;
    const auto weights = bicubic_weights(center - std::floor(center));
    const auto first = static_cast<std::size_t>(std::floor(center)) - 1;
    for (std::size_t t = 0; t < taps[pixel].weights.size(); ++t)
      CHECK(taps[pixel].weights[t] == Approx(weights[taps[pixel].first + t - first]).margin(1e-6));
  }
}

TEST_CASE("labels are taken from the nearest pixel", "[core][reframe]") {
  Scaling scaling{6, 2};
  scaling.enlarging = Interpolation::kNearest;
  CHECK(scaled(gray_info(3, 1), {1, 7, 255}, scaling) ==
        std::vector<std::uint8_t>{1, 1, 7, 7, 255, 255, 1, 1, 7, 7, 255, 255});
  Scaling fewer{2, 1};
  fewer.enlarging = Interpolation::kNearest;
  CHECK(scaled(gray_info(6, 1), {1, 2, 3, 4, 5, 6}, fewer) == std::vector<std::uint8_t>{2, 5});
}

TEST_CASE("a turn keeps the middle where it is and fits into its frame", "[core][reframe]") {
  CHECK(turned_shape({40, 30, 3, SampleType::kU8}, 90).width == 30);
  CHECK(turned_shape({30, 40, 3, SampleType::kU8}, 53.13010235).width == 50);
  // A quarter turn by the way of any angle is the one that moves whole pixels.
  const PictureInfo info = gray_info(3, 2);
  TurnedRows quarter(memory(info, {1, 2, 3, 4, 5, 6}), info, 90, {false, {{0, 0, 0}}});
  CHECK(rows_of(quarter) == std::vector<std::uint8_t>{4, 1, 5, 2, 6, 3});
  quarter.rewind();
  CHECK(rows_of(quarter, 1) == std::vector<std::uint8_t>{4, 1, 5, 2, 6, 3});
  // An even picture stays even inside; beside it is the fill.
  const PictureInfo even = gray_info(40, 40, 3);
  TurnedRows turned(memory(even, std::vector<std::uint8_t>(4800, 90)), even, 45,
                    {false, {{255, 0, 0}}});
  const auto rows = rows_of(turned);
  const std::uint32_t side = turned.shape().width;
  CHECK(side == 57);
  CHECK(rows[0] == 255);
  CHECK(rows[1] == 0);
  CHECK(rows[(28 * side + 28) * 3] == 90);
}

TEST_CASE("a turned picture is what Keys' cubic makes of it", "[core][reframe]") {
  for (const double degrees : {17.0, 0.01, -45.0, 89.99, 180.5})
    for (const std::uint32_t channels : {1u, 3u}) {
      CAPTURE(degrees, channels);
      check_turned<std::uint8_t>(degrees, SampleType::kU8, channels, 255, 0.501);
      check_turned<std::uint16_t>(degrees, SampleType::kU16, channels, 65535, 0.53);
      check_turned<float>(degrees, SampleType::kF32, channels, 1, 1e-5);
    }
}

TEST_CASE("a picture is turned to the same bytes by every instruction set",
          "[core][reframe][simd]") {
  const PictureInfo info = gray_info(90, 40, 3);
  const auto samples = random_bytes(info.shape.pixels() * 3);
  const auto turned = [&] {
    TurnedRows rows(memory(info, samples), info, -8, {false, {{20, 30, 40}}});
    return rows_of(rows);
  };
  const auto best = turned();
  for_each_instruction_set([&](const char* name) {
    INFO(name);
    CHECK(turned() == best);
  });
}

TEST_CASE("beside a turned picture without a fill is nothing", "[core][reframe]") {
  const PictureInfo info = gray_info(20, 20);
  TurnedRows turned(memory(info, std::vector<std::uint8_t>(400, 90)), info, 30, {});
  CHECK(turned.info().alpha == AlphaKind::kStraight);
  const auto rows = rows_of(turned);
  CHECK(rows[1] == 0);
  const std::uint32_t side = turned.shape().width;
  double covered = 0;
  for (std::size_t i = 1; i < rows.size(); i += 2) {
    covered += rows[i] / 255.0;
    if (rows[i] > 0) REQUIRE(rows[i - 1] == 90);  // the blended edge is of the picture's color
  }
  CHECK(covered == Approx(400).epsilon(0.01));
  CHECK(rows[(side / 2 * side + side / 2) * 2 + 1] == 255);
}
