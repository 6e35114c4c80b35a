// Cut-outs and the masks that selections are combined with.
#include "core/select/cutout.h"

#include <catch2/catch.hpp>
#include <cstring>
#include <vector>

#include "core/select/mask_combination.h"

using namespace chalcedony;

namespace {

constexpr std::size_t kCutPixels = 5;

/// Five pixels of one color, of which the second and the fourth are selected.
struct Scene {
  std::vector<std::uint8_t> selected{0, 1, 0, 1, 0};
  PlaneBuffer picture, ground;
  std::vector<float> alpha = std::vector<float>(kCutPixels + kPlanePadding, 0.5f);
  Block block;

  Scene() {
    const std::array<float, 3> color{200, 100, 50};
    for (std::size_t c = 0; c < 3; ++c)
      for (std::size_t i = 0; i < kCutPixels; ++i) {
        picture.plane(c)[i] = color[c];
        ground.plane(c)[i] = 10;
      }
    block.size = kCutPixels;
  }

  template <class Sample>
  std::vector<Sample> cut_out(SampleType sample, CutoutRest rest) {
    CutoutMaker maker(sample, rest, css_color("#010203"));
    std::vector<std::byte> stored(kCutPixels * 4 * sizeof(Sample));
    maker.write(block, read_only(picture.planes()), read_only(ground.planes()), selected.data(),
                stored.data());
    std::vector<Sample> samples(kCutPixels * 4);
    std::memcpy(samples.data(), stored.data(), stored.size());
    return samples;
  }
  std::vector<std::uint8_t> pixel(CutoutRest rest, std::size_t i) {
    const auto all = cut_out<std::uint8_t>(SampleType::kU8, rest);
    const auto from = all.begin() + static_cast<std::ptrdiff_t>(4 * i);
    return {from, from + 4};
  }
};

using CutPixel = std::vector<std::uint8_t>;

}  // namespace

TEST_CASE("a cut-out shows what is selected, and the rest as asked", "[core][select]") {
  Scene scene;
  for (const CutoutRest rest : {CutoutRest::kTransparent, CutoutRest::kGray, CutoutRest::kDimmed,
                                CutoutRest::kColor, CutoutRest::kPicture})
    for (const std::size_t i : {1u, 3u}) CHECK(scene.pixel(rest, i) == CutPixel{200, 100, 50, 255});
  CHECK(scene.pixel(CutoutRest::kTransparent, 0)[3] == 0);
  // 0.2126 x 200 + 0.7152 x 100 + 0.0722 x 50 = 117.65
  CHECK(scene.pixel(CutoutRest::kGray, 2) == CutPixel{118, 118, 118, 255});
  CHECK(scene.pixel(CutoutRest::kDimmed, 2) == CutPixel{60, 30, 15, 255});
  CHECK(scene.pixel(CutoutRest::kColor, 2) == CutPixel{1, 2, 3, 255});
  CHECK(scene.pixel(CutoutRest::kPicture, 4) == CutPixel{10, 10, 10, 255});
}

TEST_CASE("a cut-out keeps the opacity of the picture", "[core][select]") {
  Scene scene;
  scene.block.alpha = scene.alpha.data();
  CHECK(scene.pixel(CutoutRest::kTransparent, 1)[3] == 128);
  CHECK(scene.pixel(CutoutRest::kTransparent, 0)[3] == 0);
  CHECK(scene.pixel(CutoutRest::kGray, 0)[3] == 128);
  const auto deep = scene.cut_out<std::uint16_t>(SampleType::kU16, CutoutRest::kTransparent);
  CHECK(deep[4] == 200 * 257);
  CHECK(deep[7] == 32768);
}

TEST_CASE("masks are combined with a selection in their order", "[core][select]") {
  Mask first(4, 2), second(4, 2), third(4, 2);
  for (const int p : {0, 1, 2, 3}) first.set(static_cast<std::uint64_t>(p));
  for (const int p : {3, 6}) second.set(static_cast<std::uint64_t>(p));
  for (const int p : {1, 6}) third.set(static_cast<std::uint64_t>(p));
  Block block;
  block.first_pixel = 1;  // the masks know pixels of the picture, not of the Block
  block.size = 6;
  const auto combined = [&](const MaskCombination& masks) {
    std::vector<std::uint8_t> flags{1, 0, 0, 1, 1, 0};  // pixels 1 to 6
    masks.apply(block, flags.data());
    return flags;
  };
  using Flags = std::vector<std::uint8_t>;
  CHECK(combined({}) == Flags{1, 0, 0, 1, 1, 0});
  CHECK(combined({{first}, {}, {}}) == Flags{1, 0, 0, 0, 0, 0});
  CHECK(combined({{}, {second}, {}}) == Flags{1, 0, 1, 1, 1, 1});
  CHECK(combined({{}, {}, {third}}) == Flags{0, 0, 0, 1, 1, 0});
  CHECK(combined({{first}, {second}, {third}}) == Flags{0, 0, 1, 0, 0, 0});
  CHECK(combined({{first, second}, {}, {}}) == Flags{0, 0, 0, 0, 0, 0});
}
