#include "core/palette/plane_coder.h"

#include <algorithm>
#include <array>
#include <catch2/catch.hpp>
#include <cmath>
#include <limits>
#include <vector>

using namespace chalcedony;

namespace {

/// The share of the mean of some values, as a pixel of a thumbnail has it.
double shared(const PlaneCoder& coder, const std::vector<float>& values) {
  PlaneBuffer in(1), out;
  std::copy(values.begin(), values.end(), in.plane(0));
  const ConstPlanes coded = coder.code(in.plane(0), values.size(), out.planes());
  std::array<std::uint8_t, 3> rgb{};
  for (std::size_t c = 0; c < 3; ++c) {
    double sum = 0;
    for (std::size_t i = 0; i < values.size(); ++i) sum += static_cast<double>(coded[c][i]);
    rgb[c] = static_cast<std::uint8_t>(std::lround(sum / static_cast<double>(values.size())));
  }
  CHECK_FALSE(PlaneCoder::is_blank(rgb.data()));
  return coder.share(rgb.data());
}

}  // namespace

TEST_CASE("a plane is coded by its range", "[core][palette]") {
  const PlaneCoder coder(false, {-100, 100});
  CHECK(shared(coder, {-100}) == 0);
  CHECK(shared(coder, {0}) == Approx(0.5).margin(0.002));
  CHECK(shared(coder, {100, -100, 100, 100}) == Approx(0.75).margin(0.002));
}

TEST_CASE("a hue is coded as a direction, so that its mean lies on the circle", "[core][palette]") {
  const PlaneCoder coder(true, {0, 360});
  for (const float degrees : {0.0f, 45.0f, 120.0f, 200.0f, 359.0f})
    CHECK(shared(coder, {degrees}) * 360 == Approx(double{degrees}).margin(0.5));
  const double through_red = shared(coder, {350, 20}) * 360;
  CHECK(through_red == Approx(5).margin(0.5));
  const float none = std::numeric_limits<float>::quiet_NaN();
  CHECK(std::isnan(shared(coder, {none})));
  CHECK(std::isnan(shared(coder, {90, 270})));  // opposite hues
  CHECK(shared(coder, {90, none}) * 360 == Approx(90).margin(0.5));
}

TEST_CASE("white says that a pixel does not count", "[core][palette]") {
  const std::array<std::uint8_t, 3> white{255, 255, 255};
  CHECK(PlaneCoder::is_blank(white.data()));
}
