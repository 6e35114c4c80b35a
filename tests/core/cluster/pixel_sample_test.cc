#include "core/cluster/pixel_sample.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <limits>

#include "core/pixel/block_reader.h"
#include "core/pixel/pixel_hash.h"
#include "tests/support/pictures.h"

using namespace chalcedony;

namespace {

constexpr std::uint64_t kSeed = 11;

/// A float picture of one row of Blocks whose red is the number of the pixel; every tenth pixel has
/// none.
struct DeepPicture {
  static constexpr std::size_t kBlocks = 4;
  PictureInfo info;
  std::vector<float> samples;

  DeepPicture() {
    info.full_scale = 1;
    info.shape = {static_cast<std::uint32_t>(kBlocks * kBlockPixels), 1, 3, SampleType::kF32};
    for (std::size_t i = 0; i < kBlocks * kBlockPixels; ++i) {
      const float red = static_cast<float>(i) / 65536;
      samples.insert(samples.end(),
                     {red, i % 10 == 0 ? std::numeric_limits<float>::quiet_NaN() : 0.5f, 0.25f});
    }
  }
  template <class Use>
  void for_each_block(const Use& use) const {
    const FeaturePlan plan(info, channels_of(spaces::kSrgb), {});
    BlockReader reader(info, {});
    FeatureEvaluator evaluator(plan);
    const auto* stored = reinterpret_cast<const std::byte*>(samples.data());
    for (std::size_t b = 0; b < kBlocks; ++b) {
      const std::size_t first = b * kBlockPixels;
      const Block& block = reader.read(stored + 12 * first, first, kBlockPixels);
      evaluator.evaluate(block);
      use(block, evaluator);
    }
  }
};

}  // namespace

TEST_CASE("a sample of pixels holds those with the smallest hashes", "[core][cluster]") {
  const DeepPicture picture;
  HashLimit limit;
  PixelSample sample(3), at_once(3);
  constexpr std::size_t kMost = 300;
  picture.for_each_block([&](const Block& block, const FeatureEvaluator& evaluator) {
    PixelSample part(3);
    part.add(block, evaluator, kSeed, limit.now());
    sample.append(part);
    sample.keep_smallest(kMost, limit);
    at_once.add(block, evaluator, kSeed, ~std::uint64_t{0});
  });
  CHECK(limit.now() < ~std::uint64_t{0});
  const std::size_t known = at_once.size();
  HashLimit late;
  at_once.keep_smallest(kMost, late);
  CHECK(late.now() == limit.now());
  REQUIRE(sample.size() == kMost);
  REQUIRE(at_once.size() == kMost);

  // A plain second way: all hashes in order.
  std::vector<std::uint64_t> hashes;
  for (std::size_t i = 0; i < DeepPicture::kBlocks * kBlockPixels; ++i)
    if (i % 10 != 0) hashes.push_back(pixel_hash(kSeed, i));
  CHECK(hashes.size() == known);
  std::sort(hashes.begin(), hashes.end());
  CHECK(limit.now() == hashes[kMost - 1]);
  float before = -1;
  for (std::size_t i = 0; i < kMost; ++i) {
    CHECK(std::equal(sample.values(i), sample.values(i) + 3, at_once.values(i)));
    const float number = sample.values(i)[0] / 255 * 65536;
    CHECK(number > before);  // in the order of the pixels
    before = number;
    CHECK(pixel_hash(kSeed, static_cast<std::uint64_t>(std::lround(number))) <= limit.now());
  }
}

TEST_CASE("a sample counts what it does not hold", "[core][cluster]") {
  const DeepPicture picture;
  PixelSample sample(3);
  picture.for_each_block([&](Block block, const FeatureEvaluator& evaluator) {
    std::vector<std::uint8_t> counted(block.size, 1);
    std::fill_n(counted.begin(), 24, 0);
    block.counted = counted.data();
    sample.add(block, evaluator, kSeed, 0);
  });
  CHECK(sample.size() == 0);
  CHECK(sample.counted() + sample.left_out() == DeepPicture::kBlocks * (kBlockPixels - 24));
  CHECK(sample.left_out() == 400);
}

TEST_CASE("a limit only falls", "[core][cluster]") {
  HashLimit limit;
  limit.lower(100);
  CHECK(limit.now() == 100);
  limit.lower(200);
  CHECK(limit.now() == 100);
  limit.lower(7);
  CHECK(limit.now() == 7);
}
