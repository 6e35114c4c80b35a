// Shards of a run: complete, apart, even, and the same on every machine.
#include "job/run/shard.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <random>
#include <string>

using namespace chalcedony;

namespace {

std::vector<std::filesystem::path> names(std::size_t count) {
  std::vector<std::filesystem::path> paths;
  for (std::size_t i = 0; i < count; ++i)
    paths.push_back("survey/pane-" + std::to_string(i) + ".png");
  return paths;
}

}  // namespace

TEST_CASE("every input is in one shard, and shards are even", "[job][shards]") {
  for (const std::size_t count : {0u, 1u, 2u, 7u, 100u, 1001u})
    for (const unsigned of : {1u, 2u, 3u, 8u, 20u}) {
      const auto inputs = names(count);
      std::vector<int> taken(count);
      std::size_t least = count, most = 0;
      for (unsigned number = 1; number <= of; ++number) {
        const std::vector<bool> mine = in_shard(inputs, {number, of});
        REQUIRE(mine.size() == count);
        std::size_t size = 0;
        for (std::size_t i = 0; i < count; ++i) {
          taken[i] += mine[i];
          size += mine[i];
        }
        least = std::min(least, size);
        most = std::max(most, size);
      }
      CHECK(std::all_of(taken.begin(), taken.end(), [](int times) { return times == 1; }));
      CHECK(most - least <= 1);
    }
}

TEST_CASE("shards do not depend on the order in which inputs are named", "[job][shards]") {
  const auto inputs = names(50);
  auto shuffled = inputs;
  std::shuffle(shuffled.begin(), shuffled.end(), std::mt19937(5));
  const auto mine = in_shard(inputs, {2, 3}), theirs = in_shard(shuffled, {2, 3});
  for (std::size_t i = 0; i < inputs.size(); ++i) {
    const auto at = std::find(shuffled.begin(), shuffled.end(), inputs[i]) - shuffled.begin();
    CHECK(mine[i] == theirs[static_cast<std::size_t>(at)]);
  }
  // A roundabout way of naming the same file changes nothing either.
  auto roundabout = inputs;
  for (auto& path : roundabout) path = "." / path;
  CHECK(in_shard(roundabout, {2, 3}) == mine);
}

TEST_CASE("neighbors in a folder are spread over the shards", "[job][shards]") {
  const std::vector<bool> mine = in_shard(names(1000), {1, 2});
  std::size_t changes = 0;
  for (std::size_t i = 1; i < mine.size(); ++i) changes += mine[i] != mine[i - 1];
  // Half of the neighbors are apart, as if drawn by a coin; five standard deviations to both sides.
  CHECK(changes > 420);
  CHECK(changes < 580);
  CHECK(Shard{2, 3}.text() == "2/3");
}
