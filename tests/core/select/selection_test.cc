#include "core/select/selection.h"

#include <catch2/catch.hpp>
#include <random>

#include "core/error.h"
#include "core/select/variants.h"
#include "tests/support/plain_color.h"

using namespace chalcedony;

namespace {

/// Which of some sRGB colors a selection takes.
std::vector<bool> taken(const std::string& text, const std::vector<std::array<double, 3>>& colors) {
  const Expression expression = parse_expression(text);
  PictureInfo info;
  info.shape = {static_cast<std::uint32_t>(colors.size()), 1, 3, SampleType::kU8};
  PlaneBuffer planes;
  std::vector<std::uint8_t> stored;
  for (std::size_t i = 0; i < colors.size(); ++i)
    for (std::size_t c = 0; c < 3; ++c) {
      planes.plane(c)[i] = static_cast<float>(colors[i][c]);
      stored.push_back(static_cast<std::uint8_t>(colors[i][c]));
    }
  Block block;
  block.picture_width = info.shape.width;
  block.size = colors.size();
  block.color = read_only(planes.planes());
  block.stored = reinterpret_cast<const std::byte*>(stored.data());
  const ChannelPlan plan(info, expression.channels);
  ChannelEvaluator channels(plan);
  channels.evaluate(block);
  Selection selection(expression);
  const std::uint8_t* selected = selection.select(block, channels);
  return std::vector<bool>(selected, selected + colors.size());
}

const std::array<double, 3> kRedPixel{255, 0, 0}, kBlue{0, 0, 255}, kGray{90, 90, 90},
    kBlack{0, 0, 0}, kRose{255, 0, 43}, kGreen{0, 255, 0};

}  // namespace

TEST_CASE("selections take what they say", "[core][select]") {
  struct Row {
    const char* text;
    std::vector<bool> takes;  // red, blue, gray, black, rose, green
  };
  const Row rows[] = {
      {"hsv.h in 200..260 and hsv.s >= 40", {0, 1, 0, 0, 0, 0}},
      {"hsv.h in 340..20", {1, 0, 0, 0, 1, 0}},
      {"HSV.H IN 340..20 AND NOT srgb.b > 10", {1, 0, 0, 0, 0, 0}},
      {"not hsv.h in 0..60", {0, 1, 0, 0, 1, 1}},  // a gray has no hue, so neither test is true
      {"not hsv.h in 0..60 or srgb.r = 90", {0, 1, 1, 0, 1, 1}},
      {"srgb.r - srgb.b > 200", {1, 0, 0, 0, 1, 0}},
      {"srgb.r - srgb.b * 2 > 200", {1, 0, 0, 0, 0, 0}},
      {"(srgb.r + srgb.g) / 2 >= 90", {1, 0, 1, 0, 1, 1}},
      {"srgb.r / srgb.g < 5", {0, 0, 1, 0, 0, 1}},  // red, blue, black, rose divide by zero
      {"not srgb.r / srgb.g < 5", {0, 0, 0, 0, 0, 0}},
      {"((srgb.r > 200))", {1, 0, 0, 0, 1, 0}},
      {"near(#ff0000, 3)", {1, 0, 0, 0, 0, 0}},
      {"near(rgb(90 90 90), 0.5) or near(blue-ish, 1)", {}},
      {"gray in 80..100", {0, 0, 1, 0, 1, 0}},
      {"gray-709 - gray > 10", {0, 0, 0, 0, 0, 1}},
      {"file.2 != 0 and file.0 = 0", {0, 1, 0, 0, 0, 0}},
      {"lab.a > 60 or lab.b < -60", {1, 1, 0, 0, 1, 0}},
      {"srgb.r < 255", {0, 1, 1, 1, 0, 1}},
      {"-srgb.r <= -255", {1, 0, 0, 0, 1, 0}},
      {"srgb.r > 2.5e2", {1, 0, 0, 0, 1, 0}},
      {"srgb.r * 1e-3 in 8E-2..1E+2", {1, 0, 1, 0, 1, 0}},
      {"srgb.r * 1e > 0", {}}};
  for (const Row& row : rows) {
    INFO(row.text);
    if (row.takes.empty()) {
      CHECK_THROWS_AS(parse_expression(row.text), UsageError);
      continue;
    }
    CHECK(taken(row.text, {kRedPixel, kBlue, kGray, kBlack, kRose, kGreen}) == row.takes);
  }
}

TEST_CASE("`not` binds before `and`, `and` before `or`", "[core][select]") {
  const std::vector<std::array<double, 3>> colors{kRedPixel, kBlue, kGreen};
  CHECK(taken("not srgb.r = 255 and srgb.b = 255 or srgb.g = 255", colors) ==
        taken("((not (srgb.r = 255)) and srgb.b = 255) or srgb.g = 255", colors));
  CHECK(taken("srgb.g = 255 or srgb.r = 255 and srgb.b = 255", colors) ==
        std::vector<bool>{false, false, true});
}

TEST_CASE("a value within a millionth of the range counts as on the limit", "[core][select]") {
  // 102 / 255 is 40 % in exact arithmetic, and not quite in floats.
  const std::array<double, 3> forty{153, 153, 255};
  CHECK(taken("hsv.s >= 40", {forty})[0]);
  CHECK(taken("hsv.s in 40..41", {forty})[0]);
  CHECK_FALSE(taken("hsv.s > 40", {forty})[0]);
}

TEST_CASE("selections agree with plain formulas on random colors", "[core][select]") {
  std::mt19937 random(GENERATE(4u, 5u, 6u, 7u));
  std::vector<std::array<double, 3>> colors;
  for (std::size_t i = 0; i < kBlockPixels; ++i)
    colors.push_back({double(random() % 256), double(random() % 256), double(random() % 256)});
  const auto got = taken("hsv.h in 20.5..200.25 and not lab.l > 61.5", colors);
  for (std::size_t i = 0; i < colors.size(); ++i) {
    const auto hsv = test::plain_from_srgb("hsv", colors[i]);
    const auto lab = test::plain_from_srgb("lab", colors[i]);
    if (std::abs(hsv[0] - 20.5) < 1e-3 || std::abs(hsv[0] - 200.25) < 1e-3 ||
        std::abs(lab[0] - 61.5) < 1e-3)
      continue;  // on the border floats may decide either way
    const bool gray = colors[i][0] == colors[i][1] && colors[i][1] == colors[i][2];
    const bool wanted = !gray && hsv[0] >= 20.5 && hsv[0] <= 200.25 && !(lab[0] > 61.5);
    if (got[i] != wanted) FAIL("color " << i);
  }
  SUCCEED("all agree");
}

TEST_CASE("a mistake is answered with its place and what was expected", "[core][select]") {
  struct Row {
    const char* text;
    const char* says;
  };
  const Row rows[] = {
      {"", "character 1: expected a channel or a number, found the end"},
      {"hsv.h in", "character 9: expected a number, found the end"},
      {"hsv.h in 20", "expected '..', found the end"},
      {"hsv.h >", "expected a channel or a number"},
      {"hsv.h > 3 and qq.zz > 2", "expected a channel (a space and a channel of it"},
      {"hsv.s in 60..40", "character 10: expected the lower end"},
      {"hsv.hh > 3", "a channel, such as 'hsv.h'"},
      {"hsv.h > 3 and", "found the end"},
      {"hsv.h > 3 hsv.s < 2", "character 11: expected 'and', 'or' or the end"},
      {"(hsv.h > 3", "expected ')'"},
      {"hsv.h", "a comparison"},
      {"near(#ff000, 3)", "is not a color"},
      {"near(#ff0000 3)", "is not a color"},
      {"near(#ff0000)", "expected ','"},
      {"(hsv.h >) and hsv.s > 2", "character 9"},
      {"hsv.h > 3)", "character 10"}};
  for (const Row& row : rows) {
    INFO(row.text);
    CHECK_THROWS_WITH(parse_expression(row.text), Catch::Contains(row.says));
  }
  CHECK_THROWS_AS(parse_expression(std::string(5000, '(')), UsageError);
}

TEST_CASE("variants take every combination of their numbers", "[core][select][vary]") {
  const Variable low = parse_variable("low=180..220/5"), s = parse_variable("s=0.1..0.3/3");
  CHECK(low.values == std::vector<double>{180, 190, 200, 210, 220});
  const auto one = variants_of("hsv.h in {low}..260 or hsv.h < {low}", {low});
  REQUIRE(one.size() == 5);
  CHECK(one[1].text == "hsv.h in 190..260 or hsv.h < 190");
  const auto two = variants_of("hsv.h in {low}..260 and hsv.s > {s}", {low, s});
  REQUIRE(two.size() == 15);
  CHECK(two[1].text == "hsv.h in 180..260 and hsv.s > 0.2");
  CHECK(two[3].values == std::vector<double>{190, 0.1});
}

TEST_CASE("what varies must be said right, and be used", "[core][select][vary]") {
  for (const char* wrong : {"low", "low=1..2", "=1..2/3", "low=1/3", "low=a..2/3", "low=1..2/1",
                            "low=1..2/2.5", "low=1..2/101"})
    CHECK_THROWS_AS(parse_variable(wrong), UsageError);
  const Variable a = parse_variable("a=1..2/2"), many = parse_variable("b=1..2/100");
  CHECK_THROWS_WITH(variants_of("gray > 1", {a}), Catch::Contains("has no {a}"));
  CHECK_THROWS_WITH(variants_of("gray > {a} + {b}", {a}),
                    Catch::Contains("{b}, which does not vary"));
  CHECK_THROWS_WITH(variants_of("gray > {a}", {a, a}), Catch::Contains("varied twice"));
  CHECK_THROWS_WITH(variants_of("gray > {a", {a}), Catch::Contains("a brace is open"));
  CHECK_THROWS_WITH(variants_of("gray > {b} + {c}", {many, parse_variable("c=1..2/5")}),
                    Catch::Contains("there are 500 combinations, more than"));
}
