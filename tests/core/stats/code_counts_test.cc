// Counts of codes, held against counting one sample after the other.
#include "core/stats/code_counts.h"

#include <catch2/catch.hpp>

#include "tests/support/pictures.h"

using namespace chalcedony;
using namespace chalcedony::test;

TEST_CASE("codes are counted channel by channel", "[core][stats]") {
  const std::uint32_t channels = GENERATE(1u, 2u, 3u, 4u);
  constexpr std::size_t kPixels = 1003;  // no whole number of fours
  const auto stored = bytes_of(random_bytes(channels * kPixels));
  CodeCounts whole(channels), first(channels), second(channels);
  whole.add(stored.data(), kPixels);
  first.add(stored.data(), 10);
  second.add(stored.data() + 10 * channels, kPixels - 10);
  first.merge(second);
  for (std::uint32_t c = 0; c < channels; ++c) {
    CodeCounts::Counts plain{};
    for (std::size_t i = 0; i < kPixels; ++i)
      ++plain[std::to_integer<std::size_t>(stored[i * channels + c])];
    CHECK(whole.of(c) == plain);
    CHECK(first.of(c) == plain);
  }
}

TEST_CASE("which sample decides a channel", "[core][stats]") {
  PictureInfo info;
  info.shape = {10, 10, 3, SampleType::kU8};
  const auto deciding = [&](const char* name) {
    return deciding_sample(channel_named(name), info);
  };
  CHECK(deciding("srgb.b") == 2);
  CHECK(deciding("file.1") == 1);
  CHECK_FALSE(deciding("file.3"));
  CHECK_FALSE(deciding("hsv.s"));
  CHECK_FALSE(deciding("gray"));
  info.shape.channels = 1;
  CHECK(deciding("lab.l") == 0);
  CHECK_FALSE(deciding("hsv.h"));
  info.shape = {10, 10, 3, SampleType::kU8};
  info.space = &space_named("hsv");
  CHECK(deciding("hsv.v") == 2);
  CHECK_FALSE(deciding("hsv.h"));  // a gray has none, which takes all three to tell
  CHECK_FALSE(deciding("srgb.r"));
  info.shape.sample = SampleType::kU16;
  CHECK_FALSE(deciding("hsv.v"));
}
