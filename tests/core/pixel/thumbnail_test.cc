// Small copies for figures, class colors, masks.
#include "core/pixel/thumbnail.h"

#include <catch2/catch.hpp>
#include <cmath>

#include "core/letter_case.h"
#include "core/palette/class_painter.h"
#include "core/pixel/mask.h"
#include "core/planes.h"

using namespace chalcedony;

namespace {

/// Adds a picture whose pixel values are `value_of(x, y)`, gray, in Blocks of 1000.
template <class ValueOf>
void add_picture(ThumbnailSums& sums, std::uint32_t width, std::uint32_t height, ValueOf value_of) {
  PlaneBuffer plane(1);
  for (std::uint64_t first = 0; first < std::uint64_t{width} * height; first += 1000) {
    Block block;
    block.picture_width = width;
    block.first_pixel = first;
    block.size = static_cast<std::size_t>(
        std::min<std::uint64_t>(1000, std::uint64_t{width} * height - first));
    for (std::size_t i = 0; i < block.size; ++i)
      plane.plane(0)[i] = value_of(block.x(i), block.y(i));
    const float* gray = plane.plane(0);
    sums.add(block, {gray, gray, gray});
  }
}

}  // namespace

TEST_CASE("a small picture is its own thumbnail", "[core][pixel]") {
  ThumbnailSums sums(7, 5, 640, 640);
  add_picture(sums, 7, 5, [](std::uint32_t x, std::uint32_t y) { return float(10 * x + y); });
  const Thumbnail t = sums.thumbnail();
  CHECK(t.width == 7);
  CHECK(t.height == 5);
  CHECK(t.pixels_per_cell == 1.0);
  CHECK(t.rgb[3 * (2 * 7 + 4)] == 42);
}

TEST_CASE("a large picture is averaged over cells, in any order of Blocks", "[core][pixel]") {
  ThumbnailSums even(400, 200, 40, 40), odd(400, 200, 40, 40);
  add_picture(even, 400, 200,
              [](std::uint32_t x, std::uint32_t) { return x % 2 ? 100.0f : 50.0f; });
  const Thumbnail t = even.thumbnail();
  CHECK(t.width == 40);
  CHECK(t.height == 20);
  CHECK(t.pixels_per_cell == 10.0);
  for (const std::uint8_t v : t.rgb) CHECK(v == 75);
  odd.merge(even);
  CHECK(odd.thumbnail().rgb == t.rgb);
  // A copy adds into the same cells, and is taken in once.
  ThumbnailSums half(400, 200, 40, 40), other = half;
  add_picture(half, 400, 200, [](std::uint32_t, std::uint32_t) { return 20.0f; });
  add_picture(other, 400, 200, [](std::uint32_t, std::uint32_t) { return 40.0f; });
  half.merge(other);
  for (const std::uint8_t v : half.thumbnail().rgb) CHECK(v == 30);
  for (const std::uint8_t v : half.thumbnail().rgb) CHECK(v == 30);
  // A tall picture is bounded by its height.
  CHECK(ThumbnailSums(10, 1000, 40, 40).thumbnail().width == 1);
}

TEST_CASE("cells hold the mean of their pixels, however the picture comes in", "[core][pixel]") {
  // Cells of 3.1 pixels, so that some are 3 and some are 4 wide; whole Blocks, in turn to three
  // threads, and last what each has begun.
  constexpr std::uint32_t kWidth = 62, kHeight = 31, kMost = 20;
  const double side = double{kWidth} / kMost;
  std::vector<ThumbnailSums> threads(3, ThumbnailSums(kWidth, kHeight, kMost, kMost));
  const auto value = [](std::uint32_t x, std::uint32_t y) {
    return static_cast<float>((x * 7 + y * 13) % 256);
  };
  PlaneBuffer planes;
  std::size_t turn = 0;
  for (std::uint64_t first = 0; first < kWidth * kHeight; first += 100, ++turn) {
    Block block;
    block.picture_width = kWidth;
    block.first_pixel = first;
    block.size = std::min<std::size_t>(100, kWidth * kHeight - first);
    for (std::size_t i = 0; i < block.size; ++i)
      for (std::size_t c = 0; c < 3; ++c)
        planes.plane(c)[i] = c == 2 ? std::nanf("") : value(block.x(i), block.y(i)) / float(c + 1);
    threads[turn % 3].add(block, read_only(planes.planes()));
  }
  threads[0].merge(threads[1]);
  threads[0].merge(threads[2]);
  const Thumbnail t = threads[0].thumbnail();
  REQUIRE(t.width == kMost);
  REQUIRE(t.height == 10);
  for (std::uint32_t row = 0; row < t.height; ++row)
    for (std::uint32_t column = 0; column < t.width; ++column) {
      double sum = 0, count = 0;
      for (std::uint32_t y = 0; y < kHeight; ++y)
        for (std::uint32_t x = 0; x < kWidth; ++x)
          if (static_cast<std::uint32_t>(x / side) == column &&
              static_cast<std::uint32_t>(y / side) == row) {
            sum += double{value(x, y)};
            ++count;
          }
      REQUIRE(count > 0);
      const std::uint8_t* const rgb = t.rgb.data() + 3 * (row * t.width + column);
      CHECK(double(rgb[0]) == Approx(sum / count).margin(0.51));
      CHECK(double(rgb[1]) == Approx(sum / count / 2).margin(0.51));
      CHECK(rgb[2] == 0);
    }
}

TEST_CASE("transparent pixels lie on white, values out of range are cut off", "[core][pixel]") {
  ThumbnailSums sums(4, 1, 10, 10);
  PlaneBuffer planes(2);
  const float values[4] = {0, 300, -20, std::nanf("")}, alpha[4] = {0.5f, 1, 1, 1};
  for (std::size_t i = 0; i < 4; ++i) planes.plane(0)[i] = values[i], planes.plane(1)[i] = alpha[i];
  Block block;
  block.picture_width = 4;
  block.size = 4;
  block.alpha = planes.plane(1);
  const float* gray = planes.plane(0);
  sums.add(block, {gray, gray, gray});
  const Thumbnail t = sums.thumbnail();
  CHECK(t.rgb[0] == 128);
  CHECK(t.rgb[3] == 255);
  CHECK(t.rgb[6] == 0);
  CHECK(t.rgb[9] == 0);
}

TEST_CASE("class numbers are painted in the colors of the classes", "[core][palette]") {
  ClassPainter painter({"#a01c2e", "rgb(1 2 3)"});
  const std::uint8_t labels[4] = {0, 2, 1, 2};
  const ConstPlanes planes = painter.paint(labels, 4);
  CHECK(planes[0][0] == 0);
  CHECK(planes[1][1] == Approx(2));
  CHECK(planes[0][2] == Approx(0xa0));
  CHECK(planes[2][3] == Approx(3));
}

TEST_CASE("a mask is a bit a pixel", "[core][pixel]") {
  Mask mask(70, 3);
  for (const std::uint64_t p : {0u, 63u, 64u, 209u}) mask.set(p);
  std::size_t on = 0;
  for (std::uint64_t p = 0; p < 210; ++p) on += mask.at(p);
  CHECK(on == 4);
  CHECK(mask.at(64));
  CHECK_FALSE(mask.at(65));
  CHECK(mask.width() == 70);
}

TEST_CASE("names are compared without regard to case", "[core]") {
  CHECK(lower_case("Lab-D65") == "lab-d65");
  CHECK(same_letters("HSV.h", "hsv.H"));
  CHECK_FALSE(same_letters("hsv.h", "hsv.hh"));
}
