// What became of classes, against counting pixel by pixel.
#include "core/assess/class_changes.h"

#include <catch2/catch.hpp>
#include <map>
#include <random>

using namespace chalcedony;

TEST_CASE("flows and balances are those of the pixels", "[core][assess]") {
  constexpr std::size_t kTimes = 3, kPlaces = 5;  // the last one is no class
  std::mt19937 random(5);
  std::map<std::vector<std::size_t>, std::uint64_t> counted;
  std::vector<std::vector<std::size_t>> pixels;
  for (int pixel = 0; pixel < 4000; ++pixel) {
    std::vector<std::size_t> classes;
    for (std::size_t t = 0; t < kTimes; ++t)
      classes.push_back(random() % 3 == 0 || t == 0 ? random() % kPlaces : classes[t - 1]);
    ++counted[classes];
    pixels.push_back(classes);
  }
  std::vector<ClassHistory> histories;
  for (const auto& [classes, count] : counted) histories.push_back({classes, count});

  const std::vector<ClassFlow> flows = flows_between(histories, 0, 2);
  std::uint64_t changed = 0;
  for (const auto& pixel : pixels) changed += pixel[0] != pixel[2];
  CHECK(changed_pixels(flows) == changed);
  for (const ClassFlow& flow : flows) {
    std::uint64_t same = 0;
    for (const auto& pixel : pixels) same += pixel[0] == flow.from && pixel[2] == flow.to;
    CHECK(flow.pixels == same);
  }
  const std::vector<ClassBalance> balances = class_balances(flows, kPlaces - 1);
  REQUIRE(balances.size() == kPlaces);
  for (std::size_t c = 0; c < kPlaces; ++c) {
    std::uint64_t before = 0, after = 0, lost = 0, gained = 0;
    for (const auto& pixel : pixels) {
      before += pixel[0] == c;
      after += pixel[2] == c;
      lost += pixel[0] == c && pixel[2] != c;
      gained += pixel[0] != c && pixel[2] == c;
    }
    CHECK(balances[c].before == before);
    CHECK(balances[c].after == after);
    CHECK(balances[c].lost() == lost);
    CHECK(balances[c].gained() == gained);
    CHECK(balances[c].swapped() == 2 * std::min(lost, gained));
    // What is not swapped is the net change of its area.
    const auto net = static_cast<std::int64_t>(after) - static_cast<std::int64_t>(before);
    CHECK(lost + gained == balances[c].swapped() + static_cast<std::uint64_t>(std::abs(net)));
  }
}

TEST_CASE("flows are in the order of the classes, and what does not occur is none",
          "[core][assess]") {
  const std::vector<ClassHistory> histories{{{1, 0}, 5}, {{0, 0}, 7}, {{1, 2}, 2}, {{1, 0}, 1}};
  const std::vector<ClassFlow> flows = flows_between(histories, 0, 1);
  REQUIRE(flows.size() == 3);
  CHECK(flows[0].stayed());
  CHECK(flows[0].pixels == 7);
  CHECK(flows[1].from == 1);
  CHECK(flows[1].to == 0);
  CHECK(flows[1].pixels == 6);
  CHECK(flows[2].to == 2);
  CHECK(changed_pixels(flows) == 8);
}
