#include "core/channel/channel.h"

#include <algorithm>
#include <catch2/catch.hpp>

#include "core/channel/channel_plan.h"
#include "core/error.h"

using namespace chalcedony;

TEST_CASE("channels are found by name, case aside", "[core][color][channel]") {
  CHECK(channel_named("hsv.h").name() == "hsv.h");
  CHECK(channel_named("HSV.H").is_hue());
  CHECK(channel_named("lab-d65.a").name() == "lab-d65.a");
  CHECK(channel_named("gray-709").name() == "gray-709");
  CHECK(channel_named("xyy.lum").name() == "xyy.lum");
  CHECK(channel_named("file.12").index == 12);
  CHECK(channel_named("h", {{}, &spaces::kHsv}).name() == "hsv.h");
  CHECK(channels_named("lab, hsv.s").size() == 4);
}

TEST_CASE("an unknown channel is answered with the nearest", "[core][color][channel]") {
  CHECK_THROWS_WITH(channel_named("hsv.x"), Catch::Contains("hsv."));
  CHECK_THROWS_WITH(channel_named("lab.aa"), Catch::Contains("did you mean 'lab.a'?"));
  CHECK_THROWS_AS(channel_named("srgb-clipped.r"), UsageError);
  CHECK_THROWS_AS(channel_named("file."), UsageError);
  CHECK_THROWS_WITH(channels_named("hsv.h,hsv.h"), Catch::Contains("twice"));
  CHECK_THROWS_AS(channels_named("hsv.h,"), UsageError);
}

TEST_CASE("a plan computes channels of several spaces from one Block", "[core][color][plan]") {
  PictureInfo info;
  info.shape = {4, 1, 3, SampleType::kU8};
  const std::uint8_t stored[] = {255, 0, 0, 90, 90, 90, 0, 0, 255, 10, 200, 30};
  PlaneBuffer planes;
  for (std::size_t i = 0; i < 4; ++i)
    for (std::size_t c = 0; c < 3; ++c) planes.plane(c)[i] = stored[3 * i + c];
  Block block;
  block.picture_width = 4;
  block.size = 4;
  block.color = read_only(planes.planes());
  block.stored = reinterpret_cast<const std::byte*>(stored);
  const ChannelPlan plan(info, channels_named("hsv.h,lab.l,oklch.h,srgb.g,file.2,gray"));
  ChannelEvaluator channels(plan);
  channels.evaluate(block);
  CHECK(channels.channel(0)[0] == 0.0f);
  CHECK(channels.channel(0)[1] != channels.channel(0)[1]);  // a gray has no hue
  CHECK(channels.channel(0)[2] == 240.0f);
  CHECK(channels.channel(1)[0] == Approx(54.2905).margin(1e-3));
  CHECK(channels.channel(2)[1] != channels.channel(2)[1]);
  CHECK(channels.channel(2)[2] == Approx(264.052).margin(1e-2));
  CHECK(channels.channel(3)[3] == 200.0f);
  CHECK(channels.channel(4)[3] == 30.0f);
  CHECK(channels.channel(5)[0] == Approx(0.299 * 255).margin(1e-4));
  CHECK(channels.take_clipped() == 0);
  CHECK_THROWS_WITH(ChannelPlan(info, channels_named("file.3")), Catch::Contains("file.3"));
}

TEST_CASE("colors outside sRGB are clipped for hsv, and counted", "[core][color][plan]") {
  PictureInfo info;
  info.shape = {2, 1, 3, SampleType::kF32};
  info.full_scale = 1;
  info.space = &spaces::kLab;
  PlaneBuffer planes;
  const double colors[2][3] = {{60, 120, -100}, {50, 10, 10}};
  for (std::size_t i = 0; i < 2; ++i)
    for (std::size_t c = 0; c < 3; ++c) planes.plane(c)[i] = static_cast<float>(colors[i][c]);
  Block block;
  block.picture_width = 2;
  block.size = 2;
  block.color = read_only(planes.planes());
  const ChannelPlan plan(info, channels_named("hsv.v,lch.c"));
  ChannelEvaluator channels(plan);
  channels.evaluate(block);
  CHECK(channels.channel(0)[0] == 100.0f);
  CHECK(channels.channel(1)[0] == Approx(std::hypot(120, 100)).margin(1e-3));
  CHECK(channels.take_clipped() == 1);
}

TEST_CASE("the gray of a gray picture is what it holds, to the last bit", "[core][color][plan]") {
  PictureInfo info;
  info.shape = {1000, 1, 1, SampleType::kF32};
  PlaneBuffer planes(1);
  for (std::size_t i = 0; i < 1000; ++i)
    planes.plane(0)[i] = static_cast<float>(i) * 0.3f - 10;  // beyond black and white too
  Block block;
  block.picture_width = 1000;
  block.size = 1000;
  block.color = {planes.plane(0), planes.plane(0), planes.plane(0)};
  CHECK(own_channels(info) == channels_named("gray"));
  const ChannelPlan plan(info, channels_named("gray,gray-709,srgb.g"));
  ChannelEvaluator channels(plan);
  channels.evaluate(block);
  for (std::size_t c = 0; c < 3; ++c) {
    INFO(c);
    CHECK(std::equal(planes.plane(0), planes.plane(0) + 1000, channels.channel(c)));
  }
  CHECK(channels.take_clipped() == 0);
  info.space = &spaces::kProphotoRgb;
  CHECK(own_channels(info) == channels_named("prophoto-rgb.r"));
  info.shape.channels = 3;
  CHECK(own_channels(info) == channels_named("prophoto-rgb"));
}

TEST_CASE("a hue floor takes the hue from pale pixels", "[core][color][plan]") {
  PictureInfo info;
  info.shape = {1, 1, 3, SampleType::kU8};
  PlaneBuffer planes;
  planes.plane(0)[0] = 110;
  planes.plane(1)[0] = planes.plane(2)[0] = 100;
  Block block;
  block.picture_width = 1;
  block.size = 1;
  block.color = read_only(planes.planes());
  for (const auto& [floor, missing] : {std::pair{3.0, false}, std::pair{4.0, true}}) {
    const ChannelPlan plan(info, channels_named("hsv.h"), floor);
    ChannelEvaluator channels(plan);
    channels.evaluate(block);
    CHECK((channels.channel(0)[0] != channels.channel(0)[0]) == missing);
  }
}
