// Tone curves and light fields, by their definitions and on light that is known.
#include <algorithm>
#include <array>
#include <bit>
#include <catch2/catch.hpp>
#include <cmath>
#include <utility>
#include <vector>

#include "core/balance/balancer.h"
#include "core/balance/light_field.h"
#include "core/balance/tone_curve.h"
#include "core/color/curve_table.h"
#include "core/error.h"
#include "io/document/curve_file.h"
#include "tests/support/instruction_sets.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

/// Light on a picture 40 x 25, as one Block.
struct Light {
  static constexpr std::uint32_t kWidth = 40, kHeight = 25;
  PlaneBuffer planes{3};
  Block block;

  template <class Function>
  explicit Light(Function light) {
    block.picture_width = kWidth;
    block.size = kWidth * kHeight;
    for (std::size_t i = 0; i < block.size; ++i)
      for (std::size_t c = 0; c < 3; ++c)
        planes.plane(c)[i] = static_cast<float>(light(block.x(i), block.y(i), c));
  }
};

double falling_off(double x, double y) {
  const double u = x / 40 - 0.5, v = y / 25 - 0.4;
  return 200 * (1 - 0.8 * u * u - 0.5 * v * v + 0.2 * u * v);
}

}  // namespace

TEST_CASE("curves rise and bring a value to a target", "[core][balance]") {
  for (const CurveKind kind : {CurveKind::kGain, CurveKind::kPower, CurveKind::kAsinh})
    for (const double share : {0.02, 0.3, 0.9})
      for (const double target : {0.1, 0.5, 0.8}) {
        CAPTURE(curve_name(kind), share, target);
        ToneCurve curve;
        bend(curve, kind, share, target);
        CHECK(curve.at(share) == Approx(target).margin(1e-9));
        CHECK(curve.at(0) == Approx(0).margin(1e-12));
        if (kind != CurveKind::kGain) CHECK(curve.at(1) == Approx(1));
        for (int i = 1; i <= 255; ++i) REQUIRE(curve.at(i / 255.0) > curve.at((i - 1) / 255.0));
      }
  ToneCurve leveled;
  leveled.black = 0.1;
  leveled.white = 0.6;
  bend(leveled, CurveKind::kPower, 0.35, 0.25);
  CHECK(leveled.strength == Approx(2));
  CHECK(leveled.at(0.05) == 0);
  CHECK(leveled.at(0.7) == 1);
}

TEST_CASE("a factor on light is worked out in light", "[core][balance]") {
  // sRGB 188 is half of full light within a code (IEC 61966-2-1).
  ToneCurve curve;
  curve.kind = CurveKind::kGain;
  curve.strength = 0.5;
  CHECK(255 * curve.at(1) == Approx(187.516).margin(0.01));
}

TEST_CASE("equalizing follows the running sum of the counts", "[core][balance]") {
  const ToneCurve curve = equalizing_curve({1, 0, 0, 3});
  CHECK(curve.at(0.25) == Approx(0.99 * 0.25 + 0.01 * 0.25));
  CHECK(curve.at(0.75) == Approx(0.99 * 0.25 + 0.01 * 0.75));
  CHECK(curve.at(0.5) > curve.at(0.25));
  CHECK(curve.at(1) == Approx(1));
}

TEST_CASE("values become those of the same rank among others", "[core][balance]") {
  const auto counts_of = [](const std::vector<int>& codes) {
    const Binning bins = matching_bins(0, 255);
    std::vector<double> counts(bins.bins());
    for (const int code : codes)
      ++counts[static_cast<std::size_t>(bins.bin_of(static_cast<float>(code)))];
    return counts;
  };
  const auto code_at = [](const ToneCurve& curve, int code) {
    return 255 * curve.at(code / 255.0);
  };
  std::vector<int> all, darker, few{0, 0, 3, 90, 90, 90, 200, 255};
  for (int code = 0; code < 256; ++code) {
    all.push_back(code);
    darker.push_back(code * code / 255);
  }
  // Of the same values nothing changes, also where there are none.
  for (const auto& codes : {all, few, darker}) {
    const ToneCurve same = matching_curve(counts_of(codes), counts_of(codes));
    for (int code = 0; code < 256; ++code)
      REQUIRE(code_at(same, code) == Approx(code).margin(1e-6));
  }
  const ToneCurve bent = matching_curve(counts_of(all), counts_of(darker));
  for (int code = 0; code < 256; ++code)
    CHECK(code_at(bent, code) == Approx(code * code / 255.0).margin(1.5));
  // Each of the values that there are, in their order: a second way by sorting.
  std::vector<int> own, others;
  for (int i = 0; i < 4000; ++i) {
    own.push_back(30 + i * 7 % 50 + i % 3);
    others.push_back(100 + i * 13 % 120);
  }
  const ToneCurve matched = matching_curve(counts_of(own), counts_of(others));
  std::sort(own.begin(), own.end());
  std::sort(others.begin(), others.end());
  for (std::size_t i = 0; i < own.size(); i += 50) {
    const auto [first, last] = std::equal_range(own.begin(), own.end(), own[i]);
    const auto middle = static_cast<std::size_t>((first - own.begin() + last - own.begin()) / 2);
    CHECK(code_at(matched, own[i]) == Approx(others[middle]).margin(1.01));
  }
  for (int code = 1; code < 256; ++code)
    REQUIRE(code_at(matched, code) > code_at(matched, code - 1));
  // Values past the end of the others have a slope too, so that the curve can be kept in a file.
  const ToneCurve dark = matching_curve(counts_of({0, 10, 20}), counts_of({0, 0, 0, 0, 1}));
  for (int code = 1; code < 256; ++code) REQUIRE(code_at(dark, code) > code_at(dark, code - 1));
}

TEST_CASE("a table of a curve is exact at 8-bit and 16-bit codes", "[core][balance]") {
  ToneCurve curve;
  bend(curve, CurveKind::kPower, 0.5, 0.2);
  const CurveTable table([&](double share) { return curve.at(share); }, 0, 255);
  std::vector<float> values;
  for (int code = 0; code < 65536; code += code < 512 ? 1 : 97)
    values.push_back(static_cast<float>(code / 257.0));
  const std::size_t n = values.size();
  values.resize(n + kPlanePadding);
  auto out = values;
  table.apply(values.data(), out.data(), n);
  for (std::size_t i = 0; i < n; ++i)
    REQUIRE(double{out[i]} == Approx(255 * curve.at(double{values[i]} / 255)).margin(2e-3));
  std::vector<float> odd{-5, 300, NAN};
  odd.resize(odd.size() + kPlanePadding);
  table.apply(odd.data(), odd.data(), 3);
  CHECK(odd[0] == 0);
  CHECK(odd[1] == 255);
  CHECK(std::isnan(odd[2]));
}

TEST_CASE("a table of a curve says the same in any number of lanes", "[core][balance]") {
  ToneCurve curve;
  bend(curve, CurveKind::kAsinh, 0.3, 0.6);
  const CurveTable table([&](double share) { return curve.at(share); }, -20, 300);
  std::vector<float> values{-21, 301, NAN, INFINITY, -INFINITY, -20, 300, -0.0f, 0};
  for (int i = 0; i < 90; ++i) values.push_back(static_cast<float>(i * 3.7 - 30));
  std::vector<float> plain;  // one by one
  for (const float value : values) {
    std::array<float, kPlanePadding> out{value};
    table.apply(out.data(), out.data(), 1);
    plain.push_back(out[0]);
  }
  const std::size_t n = values.size();
  values.resize(n + kPlanePadding);
  for_each_instruction_set([&](const char* name) {
    CAPTURE(name);
    std::vector<float> out(values.size());
    table.apply(values.data(), out.data(), n);
    for (std::size_t i = 0; i < n; ++i) {
      CAPTURE(i, values[i]);
      CHECK(std::bit_cast<std::uint32_t>(out[i]) == std::bit_cast<std::uint32_t>(plain[i]));
    }
  });
  CHECK(plain[0] == -20);
  CHECK(plain[3] == 300);
  CHECK(plain[4] == -20);
}

TEST_CASE("curves are read back from their file, and only curves that rise", "[io][balance]") {
  CurveSet set;
  for (const CurveKind kind : {CurveKind::kGain, CurveKind::kPower, CurveKind::kAsinh}) {
    ToneCurve curve;
    curve.black = 1.0 / 3;
    bend(curve, kind, 0.7, 0.3);
    set.curves.push_back(curve);
  }
  const CurveSet again = parse_curves(curves_text(set));
  REQUIRE(again.curves.size() == 3);
  for (std::size_t c = 0; c < 3; ++c) {
    CHECK(again.curves[c].kind == set.curves[c].kind);
    CHECK(again.curves[c].black == set.curves[c].black);
    CHECK(again.curves[c].strength == set.curves[c].strength);
  }
  const auto text = [](const std::string& curves, int version = 1) {
    return "{\"chalcedony\":\"curves\",\"version\":" + std::to_string(version) +
           ",\"of\":\"channels\",\"curves\":[" + curves + "]}";
  };
  const std::string good = R"({"kind":"power","black":0,"white":1,"strength":2})";
  CHECK(parse_curves(text(good)).curves.front().strength == 2);
  CHECK_THROWS_WITH(parse_curves("{}"), Catch::Contains("is not a file of curves"));
  CHECK_THROWS_WITH(parse_curves("[1"), Catch::Contains("cannot be read as curves"));
  CHECK_THROWS_WITH(parse_curves(text(good, 2)), Catch::Contains("of version 2"));
  CHECK_THROWS_WITH(parse_curves(text(good + "," + good)), Catch::Contains("has 2 curves"));
  CHECK_THROWS_WITH(parse_curves(text(R"({"kind":"power","black":0,"white":1,"strength":-1})")),
                    Catch::Contains("does not rise"));
  CHECK_THROWS_WITH(parse_curves(text(R"({"kind":"wave","black":0,"white":1})")),
                    Catch::Contains("'wave'"));
  CHECK_THROWS_WITH(parse_curves(text(R"({"kind":"power","black":1,"white":1})")),
                    Catch::Contains("white does not lie above"));
}

TEST_CASE("a fitted surface takes the fall-off of light away", "[core][balance]") {
  Light light([](double x, double y, std::size_t) { return falling_off(x + 0.5, y + 0.5); });
  SurfaceSums sums(Light::kWidth, Light::kHeight);
  sums.add(light.block, light.planes.plane(1));
  const LightCorrection correction(sums.field());
  PlaneBuffer scratch(1);
  correction.run(light.block, light.planes.planes(), scratch);
  const float first = light.planes.plane(0)[0];
  for (std::size_t i = 0; i < light.block.size; ++i)
    REQUIRE(light.planes.plane(0)[i] == Approx(first).epsilon(0.004));

  // Pixels on one line do not tell a surface.
  std::vector<std::uint8_t> row(light.block.size, 0);
  std::fill_n(row.begin(), Light::kWidth, std::uint8_t{1});
  light.block.counted = row.data();
  SurfaceSums line(Light::kWidth, Light::kHeight);
  line.add(light.block, light.planes.plane(0));
  CHECK_THROWS_AS(line.field(), InputError);
}

TEST_CASE("the surface is that of the pixels that count", "[core][balance]") {
  const auto surface = [](double x, double y) {
    return 90 + 40 * x - 30 * y + 20 * x * x - 10 * x * y + 15 * y * y;
  };
  constexpr std::uint32_t kWidth = 60, kHeight = 20;
  Block block;  // begins within a row
  block.picture_width = kWidth;
  block.first_pixel = 30;
  block.size = 1000;
  std::vector<float> light(block.size + kPlanePadding, 9999);
  std::vector<std::uint8_t> counted(block.size);
  for (std::size_t i = 0; i < block.size; ++i) {
    counted[i] = i % 7 < 4;
    if (counted[i])
      light[i] =
          static_cast<float>(surface((block.x(i) + 0.5) / kWidth, (block.y(i) + 0.5) / kHeight));
  }
  block.counted = counted.data();
  SurfaceSums sums(kWidth, kHeight);
  sums.add(block, light.data());
  const LightField field = sums.field();
  for (std::size_t row = 0; row < field.rows(); ++row)
    for (std::size_t column = 0; column < field.columns(); ++column)
      REQUIRE(double{field.value(1, row * field.columns() + column)} ==
              Approx(surface(field.across(column), field.down(row))).margin(0.01));
}

TEST_CASE("a field lies straight between the middles of its cells", "[core][balance]") {
  for (const std::uint32_t width : {1u, 3u, 64u, 65u, 200u}) {
    constexpr std::uint32_t kHeight = 70;
    LightField field(width, kHeight);
    const std::size_t columns = field.columns(), rows = field.rows();
    for (std::size_t cell = 0; cell < columns * rows; ++cell)
      field.value(1, cell) = static_cast<float>(cell * cell % 97);
    Block block;  // begins within a row, and goes on over its end
    block.picture_width = width;
    block.first_pixel = std::uint64_t{3} * width + width / 2;
    block.size = 150;
    std::vector<float> read(block.size);
    field.read(block, 1, read.data());
    // Between two cells, or on beyond the outer ones.
    const auto place = [](double at, std::size_t cells) {
      const double in_cells = at * static_cast<double>(cells) - 0.5;
      const double first =
          std::clamp(std::floor(in_cells), 0.0, std::max(0.0, static_cast<double>(cells) - 2));
      return std::pair(static_cast<std::size_t>(first), cells > 1 ? in_cells - first : 0.0);
    };
    for (std::size_t i = 0; i < block.size; ++i) {
      const auto [column, right] = place((block.x(i) + 0.5) / width, columns);
      const auto [row, low] = place((block.y(i) + 0.5) / kHeight, rows);
      const auto value = [&, column = column, row = row](std::size_t dx, std::size_t dy) {
        return double{field.value(1, (row + dy) * columns + std::min(column + dx, columns - 1))};
      };
      const double top = value(0, 0) + (value(1, 0) - value(0, 0)) * right;
      const double bottom = value(0, 1) + (value(1, 1) - value(0, 1)) * right;
      CAPTURE(width, i);
      REQUIRE(double{read[i]} == Approx(top + (bottom - top) * low).margin(1e-3));
    }
  }
}

TEST_CASE("a blank and a dark picture give the true brightness back", "[core][balance]") {
  // A picture of two brightnesses, seen by uneven light and with some light that is always there.
  const auto blank = [](double x, double y, std::size_t c) {
    return falling_off(x, y) * (c == 2 ? 0.5 : 1.0) + 10;
  };
  const auto seen = [&](double x, double y, std::size_t c) {
    return (blank(x, y, c) - 10) * (x < 20 ? 0.8 : 0.2) + 10;
  };
  const auto field = [](Light& light) {
    FieldMeans sums(Light::kWidth, Light::kHeight);
    sums.add(light.block, read_only(light.planes.planes()));
    return sums.field();
  };
  Light white(blank), none([](double, double, std::size_t) { return 10; }), picture(seen);
  const LightField dark = field(none);
  const LightCorrection correction(field(white), &dark);
  PlaneBuffer scratch(1);
  correction.run(picture.block, picture.planes.planes(), scratch);
  for (std::size_t c = 0; c < 3; ++c)
    for (std::size_t i = 0; i < picture.block.size; ++i) {
      const double left = double{picture.planes.plane(c)[0]};
      const double here = double{picture.planes.plane(c)[i]};
      REQUIRE(here == Approx(picture.block.x(i) < 20 ? left : left / 4).epsilon(0.012));
    }
}

TEST_CASE("the one curve of a gray bends all three of its planes", "[core][balance]") {
  PictureInfo info;
  info.shape = {3, 1, 1, SampleType::kU8};
  PlaneBuffer gray(1);
  for (std::size_t i = 0; i < 3; ++i) gray.plane(0)[i] = static_cast<float>(100 * i);
  Block block;
  block.picture_width = 3;
  block.size = 3;
  block.color = {gray.plane(0), gray.plane(0), gray.plane(0)};
  Balance balance;
  balance.curves.emplace_back([](double share) { return share * share; }, 0.0, 255.0);
  Balancer balancer(info, balance);
  const ConstPlanes bent = balancer.balanced(block);
  for (std::size_t c = 0; c < 3; ++c)
    for (std::size_t i = 0; i < 3; ++i) {
      const double share = 100.0 * static_cast<double>(i) / 255;
      CHECK(static_cast<double>(bent[c][i]) == Approx(255 * share * share).margin(0.1));
    }
}
