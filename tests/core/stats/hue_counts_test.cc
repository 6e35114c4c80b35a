#include "core/stats/hue_counts.h"

#include <catch2/catch.hpp>
#include <vector>

using namespace chalcedony;

TEST_CASE("the fullest window of hues reaches over 360 degrees", "[core][stats]") {
  const std::vector<float> hue{355, 5, 44, 54, 130, 131, 132, 10};
  const std::vector<float> saturation{60, 60, 60, 60, 60, 60, 60, 19};  // the last is gray
  Block block;
  block.size = hue.size();
  HueCounts counts;
  CHECK(counts.fullest().pixels == 0);
  counts.add(block, hue.data(), saturation.data());
  CHECK(counts.fullest().first == 0);  // 5, 44 and 54; 80 to 139 holds three as well, but later
  CHECK(counts.fullest().pixels == 3);

  const std::vector<std::uint32_t> weights{9, 1, 1, 1, 1, 1, 1, 9};
  block.weights = weights.data();
  HueCounts weighted;
  weighted.add(block, hue.data(), saturation.data());
  CHECK(weighted.fullest().first == 350);
  CHECK(weighted.fullest().pixels == 11);  // 355, 5 and 44
  weighted += counts;
  CHECK(weighted.fullest().pixels == 14);
}
