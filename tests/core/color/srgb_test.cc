#include "core/color/srgb.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

using namespace chalcedony;

namespace {

double plain_decode(double v) {
  return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4);
}

}  // namespace

TEST_CASE("decode_srgb follows IEC 61966-2-1 within 1e-4 of 255", "[core][color][srgb]") {
  PlaneBuffer planes;
  double worst = 0, worst_back = 0;
  for (int step = 0; step < 500; ++step) {
    for (std::size_t i = 0; i < kBlockPixels; ++i) {
      const double v =
          255.0 * static_cast<double>(step * kBlockPixels + i) / (500 * kBlockPixels - 1);
      for (std::size_t c = 0; c < 3; ++c) planes.plane(c)[i] = static_cast<float>(v);
    }
    PlaneBuffer linear, back;
    decode_srgb(read_only(planes.planes()), linear.planes(), kBlockPixels);
    encode_srgb(read_only(linear.planes()), back.planes(), kBlockPixels);
    for (std::size_t i = 0; i < kBlockPixels; ++i) {
      const double v = planes.plane(1)[i];
      worst = std::max(worst, std::abs(linear.plane(1)[i] - 255 * plain_decode(v / 255)));
      worst_back = std::max(worst_back, std::abs(back.plane(2)[i] - v));
    }
  }
  INFO("worst " << worst << ", there and back " << worst_back);
  CHECK(worst <= 1e-4);
  CHECK(worst_back <= 1e-3);
}

TEST_CASE("the sRGB curve is odd and goes on above white", "[core][color][srgb]") {
  PlaneBuffer planes;
  const float values[] = {0.0f, -0.0f, 10.31475f, -10.31475f, 127.5f, -127.5f, 255.0f, 300.0f};
  for (std::size_t i = 0; i < std::size(values); ++i) planes.plane(0)[i] = values[i];
  decode_srgb(read_only(planes.planes()), planes.planes(), std::size(values));
  const float* linear = planes.plane(0);
  CHECK(linear[0] == 0.0f);
  CHECK(linear[2] == Approx(255 * 0.0031308).margin(1e-3));
  CHECK(linear[3] == -linear[2]);
  // ((0.5 + 0.055) / 1.055)^2.4 = 0.2140411, worked outside this program.
  CHECK(linear[4] == Approx(255 * 0.2140411).margin(1e-4));
  CHECK(linear[5] == -linear[4]);
  CHECK(linear[6] == Approx(255.0).margin(1e-4));
  CHECK(linear[7] == Approx(255 * plain_decode(300.0 / 255)).margin(1e-3));
}
