#include "core/palette/class_painter.h"

#include <catch2/catch.hpp>

#include "core/palette/paint_tally.h"

using namespace chalcedony;

TEST_CASE("labels are painted in the colors of their classes", "[core][palette]") {
  ClassPainter painter(std::vector<std::string>{"#ff8000", "#0000ff"});
  const std::vector<std::uint8_t> bytes{0, 1, 2, 1};
  const std::vector<Label> labels(bytes.begin(), bytes.end());
  for (const ConstPlanes& planes :
       {painter.paint(bytes.data(), 4), painter.paint(labels.data(), 4)}) {
    CHECK(planes[0][0] == 0);  // none is black
    CHECK(planes[0][1] == 255);
    CHECK(planes[1][3] == 128);
    CHECK(planes[2][2] == 255);
  }
  ClassPainter on_white({css_color("#102030")}, css_color("#ffffff"));
  CHECK(on_white.paint(bytes.data(), 2)[1][0] == 255);
  CHECK(on_white.paint(bytes.data(), 2)[1][1] == 32);
}

TEST_CASE("class colors are laid over the picture by their share", "[core][palette]") {
  ClassPainter painter(std::vector<std::string>{"#ff8000"});
  PlaneBuffer picture;
  for (std::size_t c = 0; c < 3; ++c) picture.plane(c)[0] = picture.plane(c)[1] = 55;
  const std::vector<Label> labels{0, 1};
  const ConstPlanes mixed =
      painter.paint_over(read_only(picture.planes()), labels.data(), 0.25f, 2);
  CHECK(mixed[0][0] == 55);  // without a class it stays
  CHECK(mixed[0][1] == 105);
  CHECK(mixed[1][1] == 73.25f);
  CHECK(mixed[2][1] == 41.25f);
}

TEST_CASE("errors of painting are those of pixels that got a color", "[core][palette]") {
  PaintTally tally(2);
  std::vector<std::uint8_t> numbers(3000, 1);
  std::vector<float> errors(3000, 2.0f);
  for (std::size_t i = 0; i < numbers.size(); i += 3) numbers[i] = 0, errors[i] = 99;
  numbers[1] = 2;
  errors[1] = 7;
  tally.add(numbers.data(), errors.data(), numbers.size());
  PaintTally other(2);
  const std::uint8_t second = 2;
  const float far = 30;
  other.add(&second, &far, 1);
  tally += other;
  CHECK(tally.errors().mean == Approx((1999 * 2 + 7 + 30) / 2001.0));
  CHECK(tally.errors().largest == 30);
  CHECK(tally.errors().median == Approx(2.01));
  CHECK(tally.take_counts() == std::vector<std::uint64_t>{1999, 2});
}
