// Selections as classes: which takes a pixel.
#include "core/select/selected_classes.h"

#include <algorithm>
#include <catch2/catch.hpp>

#include "core/pixel/block_reader.h"
#include "core/select/selection.h"
#include "tests/support/pictures.h"
#include "tests/support/uncolored_classes.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

PictureInfo picture_of(std::uint32_t side) {
  PictureInfo info;
  info.shape = {side, side, 3, SampleType::kU8};
  return info;
}

}  // namespace

TEST_CASE("a pixel is of the first selection that takes it", "[core][select]") {
  // Of few colors again and again, in a small picture and in one whose colors are remembered.
  const bool remembers = GENERATE(false, true);
  const PictureInfo info = picture_of(remembers ? 1000 : 64);
  const auto classes = uncolored({{"warm", "near(#c08040, 25)"},
                                  {"dark", "lab.l < 30"},
                                  {"warm", "lab.a > 20 and lab.l > 50"},
                                  {"green", "srgb.g > srgb.r and hsv.h in 60..200"},
                                  {"none", "lab.l > 200"}});
  REQUIRE(map_classes(classes).size() == 4);
  SelectionLabeling labeling(info, classes);
  const auto labeler = labeling.labeler();
  BlockReader reader(info, count_all());
  std::array<int, 5> seen{};
  int contested = 0;
  for (int round = 0; round < 3; ++round) {
    auto codes = random_bytes(3 * kBlockPixels, 7);
    for (auto& code : codes) code = static_cast<std::uint8_t>(code / 16 * 17);
    const auto stored = bytes_of(codes);
    const Block& block = reader.read(stored.data(), 0, kBlockPixels);
    // A second plain way: each selection on its own.
    std::vector<std::vector<std::uint8_t>> taken;
    for (const SelectedClass& one : classes) {
      const ChannelPlan plan(info, one.where.channels);
      ChannelEvaluator channels(plan);
      channels.evaluate(block);
      Selection selection(one.where);
      const std::uint8_t* const its = selection.select(block, channels);
      taken.emplace_back(its, its + block.size);
    }
    const std::array<Label, 5> numbers{1, 2, 1, 3, 4};
    const Verdicts& found = labeler->label(block);
    for (std::size_t i = 0; i < block.size; ++i) {
      Label first = 0;
      bool others = false;
      for (std::size_t s = 0; s < classes.size(); ++s) {
        if (!taken[s][i]) continue;
        if (first == 0) first = numbers[s];
        others = others || numbers[s] != first;
      }
      REQUIRE(found.labels[i] == first);
      REQUIRE(found.contested[i] == others);
      ++seen[first];
      contested += others;
    }
  }
  for (const int class_pixels : {seen[0], seen[1], seen[2], seen[3], contested})
    CHECK(class_pixels > 15);
  CHECK(seen[4] == 0);
}

TEST_CASE("grays near a hue that is asked for are counted", "[core][select]") {
  const PictureInfo info = picture_of(GENERATE(4u, 1000u));
  const auto classes = uncolored({{"red", "hsv.h in 340..20"}, {"blue", "hsv.h in 200..260"}});
  SelectionLabeling labeling(info, classes);
  const auto labeler = labeling.labeler();
  BlockReader reader(info, count_all());
  const auto stored =
      bytes_of(std::vector<std::uint8_t>{200, 20, 20, 100, 102, 101, 20, 20, 200, 50, 50, 50});
  const Verdicts& found = labeler->label(reader.read(stored.data(), 0, 4));
  CHECK(std::vector<Label>(found.labels.begin(), found.labels.begin() + 4) ==
        std::vector<Label>{1, 0, 2, 0});
  CHECK(labeler->take_near_gray() == 2);
  CHECK(labeler->take_near_gray() == 0);
}
