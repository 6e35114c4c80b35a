// Channels that people define, against the same arithmetic written out.
#include "core/channel/derived_channel.h"

#include <catch2/catch.hpp>
#include <cmath>

#include "core/channel/channel_plan.h"
#include "core/color/css_color.h"
#include "core/error.h"
#include "core/feature/feature_names.h"
#include "core/pixel/block_reader.h"
#include "tests/support/pictures.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

DerivedChannels defined(const std::vector<std::string>& definitions) {
  DerivedChannels all;
  for (const std::string& definition : definitions) all.push_back(derived_channel(definition, all));
  return all;
}

/// What a definition is answered with.
std::string complaint(const std::string& definition, const DerivedChannels& earlier = {}) {
  try {
    derived_channel(definition, earlier);
  } catch (const UsageError& error) {
    return std::string(error.what()) + "; " + error.remedy();
  }
  return "";
}

constexpr std::size_t kPicture = 1000;

PictureInfo six_channels() {
  PictureInfo info;
  info.shape = {static_cast<std::uint32_t>(kPicture), 1, 6, SampleType::kU8};
  info.bands.emplace();
  info.bands->of = {2, 1, 0};
  info.bands->named = true;
  return info;
}

}  // namespace

TEST_CASE("derived channels are what their formulas say, pixel by pixel", "[core][color]") {
  const auto derived =
      defined({"ndvi=(file.3 - file.0) / (file.3 + file.0)", "twice = 2 * ndvi + 1 in -1..3",
               "warm=lab.b - lab.a", "hue_left=hsv.h - 180"});
  const PictureInfo info = six_channels();
  auto stored = random_bytes(6 * kPicture);
  for (std::size_t i = 0; i < kPicture; i += 7) stored[6 * i] = stored[6 * i + 3] = 0;  // 0 / 0
  for (std::size_t i = 3; i < kPicture; i += 11)
    stored[6 * i] = stored[6 * i + 1] = stored[6 * i + 2] = 90;  // a gray, which has no hue
  const auto channels = channels_named("twice,lab.b,warm,ndvi,hue_left", derived);
  const ChannelPlan plan(info, channels);
  ChannelEvaluator evaluator(plan);
  BlockReader reader(info, count_all());
  evaluator.evaluate(reader.read(bytes_of(stored).data(), 0, kPicture));
  double worst = 0;
  std::size_t missing = 0, zeros = 0, without_hue = 0;
  for (std::size_t i = 0; i < kPicture; ++i) {
    const double near = stored[6 * i + 3], red = stored[6 * i];
    const double ndvi = (near - red) / (near + red);
    const Color color{&spaces::kSrgb, {double(stored[6 * i + 2]), double(stored[6 * i + 1]), red}};
    const auto lab = color.in(spaces::kLab);
    if (near + red == 0) {
      ++zeros;
      missing += std::isnan(evaluator.channel(3)[i]) && std::isnan(evaluator.channel(0)[i]);
    } else {
      worst = std::max(worst, std::abs(evaluator.channel(3)[i] - ndvi));
      worst = std::max(worst, std::abs(evaluator.channel(0)[i] - (2 * ndvi + 1)));
    }
    worst = std::max(worst, 1e-3 * std::abs(evaluator.channel(2)[i] - (lab[2] - lab[1])));
    without_hue += std::isnan(evaluator.channel(4)[i]);
  }
  CHECK(worst < 1e-6);
  CHECK(zeros > kPicture / 9);
  CHECK(missing == zeros);
  CHECK(without_hue >= (kPicture - 3) / 11);
  CHECK(without_hue < kPicture / 2);
}

TEST_CASE("the range of a derived channel follows from its formula or is given", "[core][color]") {
  struct Row {
    const char* definition;
    double low, high;
  };
  for (const Row& row :
       {Row{"a=lab.b - lab.a", -250, 250}, Row{"a=-hsv.s", -100, 0},
        Row{"a=2 * srgb.r + 1", 1, 511}, Row{"a=hsv.s / 50", 0, 2}, Row{"a=lab.a / lab.b", -1, 1},
        Row{"a=file.0 / file.1", -1, 1}, Row{"a=file.1 - file.0 in -255..255", -255, 255},
        Row{"a = lab.a * -1 IN -20..20", -20, 20}}) {
    INFO(row.definition);
    const auto channel = derived_channel(row.definition, {});
    CHECK(channel->info.low == row.low);
    CHECK(channel->info.high == row.high);
    CHECK(channel->name == "a");
  }
}

TEST_CASE("a wrong definition is answered with what is wrong and what to do", "[core][color]") {
  const auto taken = defined({"warm=lab.b"});
  CHECK_THAT(complaint("warm"), Catch::Contains("'warm' has no '='"));
  CHECK_THAT(complaint("2warm=lab.b"), Catch::Contains("'2warm' is no name for a channel"));
  CHECK_THAT(complaint("lab.x=lab.b"), Catch::Contains("is no name for a channel; begin with"));
  CHECK_THAT(complaint("=lab.b"), Catch::Contains("is no name"));
  CHECK_THAT(complaint("gray=lab.b"), Catch::Contains("the name 'gray' is taken"));
  CHECK_THAT(complaint("near=lab.b"), Catch::Contains("the name 'near' is taken"));
  CHECK_THAT(complaint("Warm=lab.a", taken), Catch::Contains("the name 'warm' is taken"));
  CHECK_THAT(complaint("x=lab.q"),
             Catch::Contains("formula of 'x', character 1: expected a channel, such as 'lab."));
  CHECK_THAT(complaint("x=lab.b +"),
             Catch::Contains("character 8: expected a channel or a number"));
  CHECK_THAT(complaint("x=(lab.b"), Catch::Contains("expected ')'"));
  CHECK_THAT(complaint("x=lab.b > 3"), Catch::Contains("expected an operator, 'in' or the end"));
  CHECK_THAT(complaint("x=lab.b in 3..3"), Catch::Contains("a range from low to high"));
  CHECK_THAT(complaint("x=lab.b in 1..3 4"), Catch::Contains("expected the end, found '4'"));
  CHECK_THAT(complaint("x=7"), Catch::Contains("'x' is the same for every pixel"));
  CHECK_THAT(complaint("x=file.0 - file.1"),
             Catch::Contains("nothing says which values 'x' can have; add its usual range, as in "
                             "\"x=file.0 - file.1 in -255..255\""));
}

TEST_CASE("definitions come after those they use, and name equal channels", "[core][color]") {
  const auto derived = defined({"a=lab.a", "b=a + lab.b", "c=b * 2"});
  const std::vector<Channel> used = feature_channels_named("c, mean5(b), lab.l", derived);
  REQUIRE(used.size() == 3);
  CHECK(used[1].name() == "mean5(b)");
  const std::vector<std::string> definitions = definitions_behind(used);
  CHECK(definitions == std::vector<std::string>{"a=lab.a", "b=a + lab.b", "c=b * 2"});
  const auto again = defined(definitions);
  CHECK(feature_channel_named("c", again) == used[0]);
  CHECK_FALSE(channel_named("a", defined({"a=lab.b"})) == channel_named("a", derived));
  CHECK(needs_stored(channel_named("x", defined({"x=file.5 / 2 in 0..9"})), 5));
  CHECK_FALSE(needs_stored(channel_named("x", defined({"x=file.4 / 2 in 0..9"})), 5));
  CHECK_FALSE(needs_stored(used[0]));
}
