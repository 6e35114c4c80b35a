// Selections that remember colors, held against those that do not.
#include "core/select/remembered_selection.h"

#include <catch2/catch.hpp>

#include "core/pixel/block_reader.h"
#include "tests/support/pictures.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

PictureInfo large_picture(std::uint32_t channels) {
  PictureInfo info;
  info.shape = {1000, 1000, channels, SampleType::kU8};
  if (channels == 4) info.alpha = AlphaKind::kStraight;
  return info;
}

}  // namespace

TEST_CASE("a remembered selection takes what it takes without memory", "[core][select]") {
  const std::uint32_t channels = GENERATE(3u, 4u);
  const Expression expression =
      parse_expression("near(#804020, 30) and not (lab.l > 60 or near(#604040, 5))");
  const PictureInfo info = large_picture(channels);
  REQUIRE(remembers_colors(info, expression));
  const ChannelPlan plan(info, expression.channels);
  SelectedColors known;
  RememberedSelection remembering(expression, plan, known), other_thread(expression, plan, known);
  ChannelEvaluator evaluator(plan);
  Selection plain(expression);
  BlockReader reader(info, count_all());
  for (int round = 0; round < 6; ++round) {
    auto codes = random_bytes(channels * kBlockPixels);
    for (auto& code : codes) code = static_cast<std::uint8_t>(code / 16 * 17);  // colors come again
    const auto stored = bytes_of(codes);
    const Block& block = reader.read(stored.data(), 0, kBlockPixels);
    const std::uint8_t* const found = (round % 2 == 0 ? remembering : other_thread).select(block);
    evaluator.evaluate(block);
    const std::uint8_t* const asked = plain.select(block, evaluator);
    CHECK(std::equal(found, found + block.size, asked));
    const auto taken = std::count(found, found + block.size, 1);
    CHECK(taken > 15);
    CHECK(taken < 700);
  }
}

TEST_CASE("what is remembered hangs on the color alone", "[core][select]") {
  const PictureInfo info = large_picture(3);
  CHECK(remembers_colors(info, parse_expression("srgb.r > 3 or near(#ff0000, 10)")));
  CHECK_FALSE(remembers_colors(info, parse_expression("srgb.r > 3")));  // quicker to compute
  CHECK_FALSE(remembers_colors(info, parse_expression("near(#ff0000, 10) and hsv.h in 0..20")));
  CHECK_FALSE(remembers_colors(info, parse_expression("near(#ff0000, 10) and file.0 > 3")));
  PictureInfo other = info;
  other.shape.width = 100;
  CHECK_FALSE(remembers_colors(other, parse_expression("near(#ff0000, 10)")));
  other = info;
  other.space = &space_named("display-p3");
  CHECK_FALSE(remembers_colors(other, parse_expression("near(#ff0000, 10)")));
  other = info;
  other.shape.sample = SampleType::kU16;
  CHECK_FALSE(remembers_colors(other, parse_expression("near(#ff0000, 10)")));
}
