#include "core/pixel/cut_outs.h"

#include <catch2/catch.hpp>
#include <cstddef>
#include <vector>

#include "core/pixel/memory_source.h"

using namespace chalcedony;

namespace {

constexpr RasterShape kNumberedShape{50, 40, 2, SampleType::kU8};

/// Its channels are column and row.
MemorySource numbered() {
  std::vector<std::byte> samples;
  for (std::uint32_t y = 0; y < kNumberedShape.height; ++y)
    for (std::uint32_t x = 0; x < kNumberedShape.width; ++x) {
      samples.push_back(static_cast<std::byte>(x));
      samples.push_back(static_cast<std::byte>(y));
    }
  return {kNumberedShape, std::move(samples)};
}

}  // namespace

TEST_CASE("cut-outs hold every step-th pixel of their rectangles", "[core]") {
  MemorySource rows = numbered();
  const std::vector<PixelRect> rects{{3, 5, 10, 10}, {40, 0, 10, 7}, {7, 9, 25, 21}};
  const auto cut = cut_out(rows, rects, 10);
  REQUIRE(cut.size() == 3);
  for (std::size_t i = 0; i < 3; ++i) {
    const std::uint32_t step = i == 2 ? 3 : 1;
    CHECK(cut[i].step == step);
    CHECK(cut[i].shape.width == (rects[i].width + step - 1) / step);
    CHECK(cut[i].shape.height == (rects[i].height + step - 1) / step);
    REQUIRE(cut[i].samples.size() == cut[i].shape.row_bytes() * cut[i].shape.height);
    bool right = true;
    for (std::uint32_t y = 0; y < cut[i].shape.height; ++y)
      for (std::uint32_t x = 0; x < cut[i].shape.width; ++x) {
        const std::byte* pixel = &cut[i].samples[2 * (y * cut[i].shape.width + x)];
        right = right && pixel[0] == static_cast<std::byte>(rects[i].x + x * step) &&
                pixel[1] == static_cast<std::byte>(rects[i].y + y * step);
      }
    CHECK(right);
  }
  // What lies below was not read.
  std::vector<std::byte> next(kNumberedShape.row_bytes());
  rows.read_rows(1, next.data());
  CHECK(next[1] == std::byte{30});
}

TEST_CASE("squares lie inside the picture", "[core]") {
  const auto at = [](double x, double y, std::uint32_t side) {
    const PixelRect rect = square_about(x, y, side, kNumberedShape);
    return std::vector<std::uint32_t>{rect.x, rect.y, rect.width, rect.height};
  };
  CHECK(at(25, 20, 10) == std::vector<std::uint32_t>{20, 15, 10, 10});
  CHECK(at(2, 39, 10) == std::vector<std::uint32_t>{0, 30, 10, 10});
  CHECK(at(49.5, 20, 45) == std::vector<std::uint32_t>{5, 0, 45, 40});
}
