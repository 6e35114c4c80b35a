// Values quoted on 0-1 and as codes, against the arithmetic written out.
#include "core/channel/quoted_channel.h"

#include <catch2/catch.hpp>

#include "core/channel/channel_plan.h"
#include "core/pixel/block_reader.h"
#include "tests/support/pictures.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

PictureInfo pixels_of(SampleType sample, double full_scale) {
  PictureInfo info;
  info.shape = {4, 1, 3, sample};
  info.full_scale = full_scale;
  return info;
}

/// The quoted values of a channel at four pixels.
std::vector<float> read_out(const PictureInfo& info, const std::vector<std::byte>& stored,
                            const Channel& channel, QuotedUnits units) {
  const ChannelPlan plan(info, {quoted_channel(channel, units, {&info, info.full_scale})});
  BlockReader reader(info, count_all());
  ChannelEvaluator evaluator(plan);
  evaluator.evaluate(reader.read(stored.data(), 0, 4));
  return {evaluator.channel(0), evaluator.channel(0) + 4};
}

const Channel kRed{&spaces::kSrgb, 0}, kSaturation{&spaces::kHsv, 1}, kHue{&spaces::kHsv, 0},
    kLightness{&spaces::kLab, 0}, kLuma{&spaces::kYcbcr, 0};

}  // namespace

TEST_CASE("on 0-1 are what goes to 255, and percent", "[core][color]") {
  const PictureInfo info = pixels_of(SampleType::kU8, 255);
  const auto stored =
      bytes_of(std::vector<std::uint8_t>{255, 0, 0, 51, 51, 51, 0, 9, 9, 100, 50, 0});
  CHECK(read_out(info, stored, kRed, QuotedUnits::kUnit) ==
        std::vector<float>{1, 51.0f / 255, 0, 100.0f / 255});
  CHECK(read_out(info, stored, kSaturation, QuotedUnits::kUnit) == std::vector<float>{1, 0, 1, 1});
  CHECK(quoted_value(50, kSaturation, QuotedUnits::kUnit, {&info, 255}) == 0.5);
  const Channel quoted = quoted_channel(kRed, QuotedUnits::kUnit, {&info, 255});
  CHECK(quoted.name() == "srgb.r");
  CHECK(quoted.unit_name() == "0-1");
  CHECK(usual_range(quoted, info) == std::pair(0.0, 1.0));
  // Degrees and numbers without a unit stay, and so does what is stored.
  for (const Channel& stays : {kHue, kLightness, Channel{nullptr, 2}})
    CHECK(quoted_channel(stays, QuotedUnits::kUnit, {&info, 255}) == stays);
}

TEST_CASE("codes of what is stored are exactly those of the file", "[core][color]") {
  const std::vector<std::uint16_t> codes{40001, 1, 2, 65535, 65535, 65535, 7, 8, 9, 12345, 0, 3};
  const PictureInfo info = pixels_of(SampleType::kU16, 65535);
  const auto stored = bytes_of(codes);
  CHECK(read_out(info, stored, kRed, QuotedUnits::kCode) ==
        std::vector<float>{40001, 65535, 7, 12345});
  CHECK(quoted_value(40001 / 257.0 + 1e-6, kRed, QuotedUnits::kCode, {&info, 65535}) == 40001);
  CHECK(quoted_channel(kRed, QuotedUnits::kCode, {&info, 65535}).unit_name() == "0-65535");
  // What is computed is only scaled, and percent is none of a file's numbers.
  CHECK(read_out(info, stored, kLuma, QuotedUnits::kCode)[1] == Approx(65535));
  CHECK(quoted_channel(kSaturation, QuotedUnits::kCode, {&info, 65535}) == kSaturation);

  // Codes of 12 bits, stored in 16.
  const PictureInfo twelve = pixels_of(SampleType::kU16, 4095);
  CHECK(quoted_channel(kRed, QuotedUnits::kCode, {&twelve, 4095}).unit_name() == "0-4095");
  CHECK(read_out(twelve, stored, kRed, QuotedUnits::kCode)[2] == 7);

  // Full scale of floats is 1; 8-bit codes are the channel's own numbers.
  const PictureInfo floats = pixels_of(SampleType::kF32, 1);
  CHECK(quoted_channel(kRed, QuotedUnits::kCode, {&floats, 1}).unit_name() == "0-1");
  const PictureInfo bytes = pixels_of(SampleType::kU8, 255);
  CHECK(quoted_channel(kRed, QuotedUnits::kCode, {&bytes, 255}) == kRed);
}

TEST_CASE("what arithmetic leaves of nothing is not shown", "[core][color]") {
  CHECK(without_noise(&spaces::kLab, -2.384e-5) == 0);
  CHECK(without_noise(&spaces::kOklch, 1.192e-7) == 0);
  CHECK(without_noise(&spaces::kLab, 0.0002) == 0.0002);
  CHECK(without_noise(&spaces::kSrgb, 1e-7) == 1e-7);  // may be stored so
  CHECK(without_noise(nullptr, -1e-7) == -1e-7);
}
