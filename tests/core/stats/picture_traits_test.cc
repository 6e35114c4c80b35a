#include "core/stats/picture_traits.h"

#include <catch2/catch.hpp>
#include <vector>

#include "core/stats/color_set.h"

using namespace chalcedony;

namespace {

/// Pixels as a reader would hand them on, of three color channels in 0-255.
struct TraitPixels {
  PlaneBuffer planes{4};
  Block block;

  explicit TraitPixels(const std::vector<std::array<float, 3>>& colors) {
    for (std::size_t i = 0; i < colors.size(); ++i)
      for (std::size_t c = 0; c < 3; ++c) planes.plane(c)[i] = colors[i][c];
    block.picture_width = 100;
    block.size = block.counted_size = colors.size();
    block.color = read_only(planes.planes());
  }
};

PictureInfo rgb_info(SampleType sample) {
  PictureInfo info;
  info.shape = {100, 1, 3, sample};
  return info;
}

}  // namespace

TEST_CASE("a picture is colored and translucent when one pixel that counts is", "[core][stats]") {
  const PictureInfo info = rgb_info(SampleType::kU8);
  TraitPixels grays({{9, 9, 9}, {80, 80, 80}});
  PictureTraits traits;
  traits.add(grays.block, info);
  CHECK_FALSE(traits.colored);
  CHECK_FALSE(traits.translucent);
  TraitPixels mixed({{9, 9, 9}, {80, 81, 80}});
  const std::vector<std::uint8_t> first_counts{1, 0};
  mixed.block.counted = first_counts.data();
  traits.add(mixed.block, info);
  CHECK_FALSE(traits.colored);
  mixed.block.counted = nullptr;
  mixed.planes.plane(3)[0] = 1.0f;
  mixed.planes.plane(3)[1] = 0.5f;
  mixed.block.alpha = mixed.planes.plane(3);
  PictureTraits more;
  more.add(mixed.block, info);
  traits.merge(more);
  CHECK(traits.colored);
  CHECK(traits.translucent);
}

TEST_CASE("samples of 16 bits tell whether their low bytes are used, and how far they go",
          "[core][stats]") {
  const PictureInfo info = rgb_info(SampleType::kU16);
  TraitPixels pixels({{0, 0, 0}, {128, 128, 128}});
  std::vector<std::uint16_t> samples{0, 257, 514, 128 * 257, 257, 0};
  pixels.block.stored = reinterpret_cast<const std::byte*>(samples.data());
  PictureTraits traits;
  traits.add(pixels.block, info);
  CHECK_FALSE(traits.uses_low_bytes);
  CHECK(traits.largest_sample == 128 * 257);
  samples[5] = 4095;
  PictureTraits other;
  other.add(pixels.block, info);
  CHECK(other.uses_low_bytes);
  traits.merge(other);
  CHECK(traits.uses_low_bytes);
  CHECK(traits.largest_sample == 128 * 257);
}

TEST_CASE("a color set counts each 8-bit color once, of pixels that count", "[core][stats]") {
  const std::array<SampleScale, 3> scales{SampleScale{1, 0}, {1, 0}, {1, 0}};
  TraitPixels pixels({{1, 2, 3}, {3, 2, 1}, {1, 2, 3}, {255, 255, 255}, {0, 0, 0}});
  const std::vector<std::uint8_t> counted{1, 1, 1, 1, 0};
  pixels.block.counted = counted.data();
  ColorSet colors, others;
  CHECK(colors.count() == 0);
  colors.add(pixels.block, scales);
  CHECK(colors.count() == 3);
  TraitPixels more({{1, 2, 3}, {7, 7, 7}});
  others.add(more.block, scales);
  colors.merge(others);
  CHECK(colors.count() == 4);
}
