#include "core/pixel/block_reader.h"

#include <catch2/catch.hpp>
#include <cstring>
#include <limits>
#include <random>

#include "core/error.h"
#include "core/pixel/interleave.h"

using namespace chalcedony;

namespace {

const std::byte* raw(const auto& samples) {
  return reinterpret_cast<const std::byte*>(samples.data());
}

PictureInfo info_of(std::uint32_t width, std::uint32_t channels, SampleType sample) {
  PictureInfo info;
  info.shape = {width, 4, channels, sample};
  info.full_scale = full_scale_of(sample);
  if (channels == 2 || channels == 4) info.alpha = AlphaKind::kStraight;
  return info;
}

}  // namespace

TEST_CASE("stored samples become values and come back, in every layout and odd lengths",
          "[core][pixel][interleave]") {
  std::mt19937 random(3);
  for (const SampleType sample : {SampleType::kU8, SampleType::kU16, SampleType::kF32})
    for (const std::uint32_t channels : {3u, 4u, 5u})
      for (const std::size_t n : {1u, 15u, 16u, 17u, 333u}) {
        std::vector<std::byte> stored(n * channels * bytes_per_sample(sample));
        if (sample == SampleType::kF32) {
          for (std::size_t i = 0; i < n * channels; ++i) {
            const float v = static_cast<float>(random() % 10000) / 10000.0f;
            std::memcpy(stored.data() + 4 * i, &v, 4);
          }
        } else {
          for (auto& b : stored) b = static_cast<std::byte>(random() & 255);
        }
        const SampleScale scale = sample_scale(spaces::kSrgb, 0, sample);
        PlaneBuffer planes;
        read_planes(stored.data(), channels, sample, {scale, scale, scale}, planes.planes(), n);
        PlaneBuffer one;
        read_plane(stored.data(), channels, sample, 1, scale, one.plane(0), n);
        CHECK(std::memcmp(one.plane(0), planes.plane(1), n * sizeof(float)) == 0);
        auto back = stored;
        for (std::size_t i = 0; i < n; ++i)
          std::memset(back.data() + i * channels * bytes_per_sample(sample), 0,
                      3 * bytes_per_sample(sample));
        write_planes(read_only(planes.planes()), n, channels, sample, {scale, scale, scale},
                     back.data());
        if (sample != SampleType::kF32) {
          CHECK(back == stored);
        } else {
          for (std::size_t i = 0; i < n * channels; ++i) {
            float a, b;
            std::memcpy(&a, stored.data() + 4 * i, 4);
            std::memcpy(&b, back.data() + 4 * i, 4);
            CHECK(b == Approx(a).margin(1e-6));
          }
        }
      }
}

TEST_CASE("codes are rounded to nearest and clipped, and what is no number is 0",
          "[core][pixel][interleave]") {
  const float values[] = {
      -3.0f, 0.49f, 0.51f, 254.49f, 254.51f, 300.0f, std::numeric_limits<float>::quiet_NaN()};
  const std::uint8_t wanted[] = {0, 0, 1, 254, 255, 255, 0};
  PlaneBuffer planes;
  for (std::size_t c = 0; c < 3; ++c)
    for (std::size_t i = 0; i < 21; ++i) planes.plane(c)[i] = values[i % 7];
  std::vector<std::uint8_t> stored(63);
  write_planes(read_only(planes.planes()), 21, 3, SampleType::kU8, {SampleScale{}, {}, {}},
               reinterpret_cast<std::byte*>(stored.data()));
  for (std::size_t i = 0; i < 21; ++i)
    for (std::size_t c = 0; c < 3; ++c) CHECK(stored[3 * i + c] == wanted[i % 7]);
}

TEST_CASE("pixels are left out for the first reason that holds", "[core][pixel][block]") {
  auto info = info_of(4, 4, SampleType::kU8);
  std::vector<std::uint8_t> stored(4 * 4 * 4, 200);
  stored[4 * 5 + 3] = 0;  // pixel 5 is transparent
  auto mask = std::make_shared<Mask>(4, 4);
  for (const std::uint64_t p : {4, 5, 6, 8, 9, 10}) mask->set(p);
  Counting counting;
  counting.region = PixelRect{0, 1, 3, 2};  // pixels 4 5 6 8 9 10
  counting.within = mask;
  BlockReader reader(info, counting);
  const Block& block = reader.read(raw(stored), 0, 16);
  CHECK(block.counted_size == 5);
  CHECK_FALSE(block.counts(5));
  CHECK_FALSE(block.counts(0));
  CHECK(block.counts(10));
  CHECK(reader.excluded().outside_region == 10);
  CHECK(reader.excluded().transparent == 1);
  CHECK(block.x(10) == 2);
  CHECK(block.y(10) == 2);
  counting.count_transparent = true;
  CHECK(BlockReader(info, counting).read(raw(stored), 0, 16).counted_size == 6);
}

TEST_CASE("pixels that were left out add up by their reasons", "[core][pixel][block]") {
  Excluded all{1, 2, 3, 4};
  all += Excluded{10, 20, 30, 40};
  CHECK(all.outside_region == 11);
  CHECK(all.outside_mask == 22);
  CHECK(all.transparent == 33);
  CHECK(all.not_finite == 44);
  CHECK(all.total() == 110);
}

TEST_CASE("floats that are not finite do not count", "[core][pixel][block]") {
  const std::vector<float> stored{0.5f, 0.5f, 0.5f, std::numeric_limits<float>::infinity(),
                                  0,    0,    0,    std::numeric_limits<float>::quiet_NaN(),
                                  0};
  BlockReader reader(info_of(3, 3, SampleType::kF32), {});
  const Block& block = reader.read(raw(stored), 0, 3);
  CHECK(block.counted_size == 1);
  CHECK(reader.excluded().not_finite == 2);
  CHECK(block.color[0][0] == 127.5f);
}

TEST_CASE("without color the same pixels count", "[core][pixel][block]") {
  auto info = info_of(2, 2, SampleType::kU8);
  const std::vector<std::uint8_t> stored{60, 128, 0, 0};
  for (const AlphaKind alpha : {AlphaKind::kStraight, AlphaKind::kPremultiplied}) {
    info.alpha = alpha;
    BlockReader reader(info, {}, false);
    const Block& block = reader.read(raw(stored), 0, 2);
    CHECK(block.color[0] == nullptr);
    CHECK(block.counted_size == 1);
    CHECK(reader.excluded().transparent == 1);
  }
  const std::vector<float> floats{std::numeric_limits<float>::infinity(), 0.5f};
  CHECK(BlockReader(info_of(2, 1, SampleType::kF32), {}, false)
            .read(raw(floats), 0, 2)
            .counted_size == 1);
}

TEST_CASE("gray is a color with equal r g b, and premultiplied alpha is undone",
          "[core][pixel][block]") {
  auto info = info_of(2, 2, SampleType::kU8);
  info.alpha = AlphaKind::kPremultiplied;
  const std::vector<std::uint8_t> stored{60, 128, 0, 0};
  BlockReader reader(info, {});
  const Block& block = reader.read(raw(stored), 0, 2);
  CHECK(block.color[0][0] == Approx(60 * 255.0 / 128));
  CHECK(block.color[1][0] == block.color[0][0]);
  CHECK(block.color[2][1] == 0.0f);
  CHECK(block.counted_size == 1);
}

TEST_CASE("regions are pixels or percent, and centers decide", "[core][pixel][region]") {
  const auto rect = [](const char* text, std::uint32_t w, std::uint32_t h) {
    const PixelRect r = parse_region(text).in(w, h);
    return std::array{r.x, r.y, r.width, r.height};
  };
  using R = std::array<std::uint32_t, 4>;
  CHECK(rect("1,2,3,4", 10, 10) == R{1, 2, 3, 4});
  CHECK(rect("percent:0,0,100,100", 7, 3) == R{0, 0, 7, 3});
  CHECK(rect("percent:25,25,50,50", 8, 4) == R{2, 1, 4, 2});
  CHECK(rect("0.5,0.5,1,1", 4, 4) == R{0, 0, 1, 1});  // a center on the left edge belongs to it
  CHECK(rect("0.6,0,1,1", 4, 4) == R{1, 0, 1, 1});
  CHECK_THROWS_WITH(parse_region("5,5,0,2"), Catch::Contains("is not a region"));
  CHECK_THROWS_AS(parse_region("1,2,3"), UsageError);
  CHECK_THROWS_AS(parse_region("1,2,3,4,5"), UsageError);
  CHECK_THROWS_AS(parse_region("a,2,3,4"), UsageError);
  for (const char* beyond : {"8,8,4,4", "8,1,4,4", "1,8,4,4"})
    CHECK_THROWS_WITH(rect(beyond, 10, 10), Catch::Contains("outside the picture, which is 10x10"));
  CHECK_THROWS_WITH(rect("0.6,0.6,0.3,0.3", 10, 10), Catch::Contains("no pixel center"));
}
