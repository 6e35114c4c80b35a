// Curves in pieces against the standard library, at their joints and beyond their ends.
#include "core/color/curve_pieces.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <limits>
#include <set>

#include "core/color/srgb.h"

using namespace chalcedony;

namespace {

// A parabola with a line before it, as a curve whose pieces are exact.
constexpr auto kParabola = [](double x) { return 2 - 3 * x + 0.5 * x * x; };
constexpr CurvePieces<2, 22> kPieces = curve_pieces<2, 22>(1.0f, 1.5f, 1.0f, -4.0, kParabola);

using Curve = void (*)(const ConstPlanes&, const Planes&, std::size_t);

float through(Curve curve, float value) {
  PlaneBuffer planes;
  for (std::size_t c = 0; c < 3; ++c) planes.plane(c)[0] = value;
  curve(read_only(planes.planes()), planes.planes(), 1);
  return planes.plane(0)[0];
}

}  // namespace

TEST_CASE("the first piece is the line, and the others are the curve", "[core][color]") {
  const std::size_t line = kPieces.entry(kPieces.beginning(0));
  CHECK(kPieces.coefficients[0][line] == 0.0f);
  CHECK(kPieces.coefficients[1][line] == -4.0f);
  CHECK(kPieces.coefficients[2][line] == 0.0f);
  std::set<std::size_t> entries{line};
  for (std::size_t piece = 1; piece < kPieces.kPieces; ++piece) {
    INFO("piece " << piece);
    const std::size_t entry = kPieces.entry(kPieces.beginning(piece));
    entries.insert(entry);
    CHECK(kPieces.coefficients[0][entry] == Approx(2));
    CHECK(kPieces.coefficients[1][entry] == Approx(-3));
    CHECK(kPieces.coefficients[2][entry] == Approx(0.5));
  }
  CHECK(entries.size() == kPieces.kPieces);
}

TEST_CASE("pieces begin at the cut and grow with their place", "[core][color]") {
  // The cut has its place half the way from 1 to 2, so that pieces end at 2, 3, 4, 6, 8.
  const float expected[] = {1.5f, 2, 3, 4, 6, 8};
  for (std::size_t i = 0; i < std::size(expected); ++i)
    CHECK(kPieces.beginning(i + 1) == expected[i]);
  CHECK(kPieces.lowest == 1.0f);
  // Sixteen pieces are eight octaves; the place of 255.5 is 256.
  CHECK(kPieces.last < 255.5f);
  CHECK(kPieces.last == Approx(255.5));
}

TEST_CASE("the sRGB curves hold at the joints of their pieces", "[core][color][srgb]") {
  const bool decodes = GENERATE(true, false);
  const Curve curve = decodes ? decode_srgb : encode_srgb;
  double worst = 0;
  for (float v = 1e-3f; v < 260; v *= 1.00037f) {
    const double unit = static_cast<double>(v) / 255;
    const double wanted = 255 * (decodes ? srgb_decoded(unit) : srgb_encoded(unit));
    worst = std::max(worst, std::abs(static_cast<double>(through(curve, v)) - wanted));
  }
  INFO((decodes ? "decoded" : "encoded") << ", worst " << worst);
  CHECK(worst <= (decodes ? 5e-5 : 2e-4));
}

TEST_CASE("a curve goes on beyond its pieces, and is odd", "[core][color][srgb]") {
  const bool decodes = GENERATE(true, false);
  const Curve curve = decodes ? decode_srgb : encode_srgb;
  for (const float v : {1e-6f, 0.5f, 10.3f, 100.0f, 263.0f, 265.0f, 281.0f, 1e4f, 1e8f}) {
    INFO(v);
    const double unit = static_cast<double>(v) / 255;
    const double wanted = 255 * (decodes ? srgb_decoded(unit) : srgb_encoded(unit));
    CHECK(static_cast<double>(through(curve, v)) == Approx(wanted).epsilon(5e-6).margin(2e-4));
    CHECK(through(curve, -v) == -through(curve, v));
  }
  CHECK(through(curve, 0.0f) == 0.0f);
  CHECK(std::signbit(through(curve, -0.0f)));
}

TEST_CASE("a value in a vector does not change what its neighbors become", "[core][color][srgb]") {
  const Curve curve = GENERATE(decode_srgb, encode_srgb);
  const float odd_one = GENERATE(-3.0f, 1e6f, std::numeric_limits<float>::quiet_NaN());
  PlaneBuffer plain, mixed;
  for (std::size_t i = 0; i < kPlanePadding; ++i)
    for (std::size_t c = 0; c < 3; ++c)
      plain.plane(c)[i] = mixed.plane(c)[i] = 17.0f * static_cast<float>(i) + static_cast<float>(c);
  mixed.plane(1)[5] = odd_one;
  curve(read_only(plain.planes()), plain.planes(), kPlanePadding);
  curve(read_only(mixed.planes()), mixed.planes(), kPlanePadding);
  for (std::size_t i = 0; i < kPlanePadding; ++i)
    for (std::size_t c = 0; c < 3; ++c)
      if (i != 5 || c != 1) CHECK(mixed.plane(c)[i] == plain.plane(c)[i]);
}
