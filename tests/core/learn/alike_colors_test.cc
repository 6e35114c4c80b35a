#include "core/learn/alike_colors.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <random>
#include <utility>

using namespace chalcedony;

namespace {

std::vector<DoubtfulColor> random_colors(unsigned seed, std::size_t n) {
  std::mt19937 random(seed);
  std::uniform_real_distribution<double> lightness(0.3, 0.6), other(-0.1, 0.1);
  std::vector<DoubtfulColor> colors(n);
  for (DoubtfulColor& color : colors) {
    color.oklab = {lightness(random), other(random), other(random)};
    color.pixels = random() % 100;
    color.may_stand = random() % 4 > 0;
  }
  return colors;
}

bool alike(const DoubtfulColor& a, const DoubtfulColor& b) {
  return std::hypot(a.oklab[0] - b.oklab[0], a.oklab[1] - b.oklab[1], a.oklab[2] - b.oklab[2]) <=
         kAlikeInOklab;
}

/// The same rule, everything counted anew in every round.
std::vector<ColorStandIn> plain_stand_ins(const std::vector<DoubtfulColor>& colors,
                                          std::size_t most, std::uint64_t least) {
  std::vector<bool> gone(colors.size());
  std::vector<ColorStandIn> taken;
  while (taken.size() < most) {
    ColorStandIn best;
    bool found = false;
    for (std::size_t c = 0; c < colors.size(); ++c) {
      if (gone[c] || !colors[c].may_stand) continue;
      ColorStandIn one{c, {}, colors[c].pixels};
      for (std::size_t other = 0; other < colors.size(); ++other) {
        if (other == c || gone[other] || !alike(colors[c], colors[other])) continue;
        one.others.push_back(other);
        one.pixels += colors[other].pixels;
      }
      if (!found || std::pair(one.pixels, colors[c].pixels) >
                        std::pair(best.pixels, colors[best.color].pixels))
        best = one;
      found = true;
    }
    if (!found || best.pixels < least) break;
    gone[best.color] = true;
    for (const std::size_t other : best.others) gone[other] = true;
    taken.push_back(best);
  }
  return taken;
}

}  // namespace

TEST_CASE("colors that stand for most are found as by counting anew", "[core][learn]") {
  for (unsigned seed = 1; seed <= 20; ++seed) {
    const auto colors = random_colors(seed, 150);
    const auto found = color_stand_ins(colors, 40, 20), plain = plain_stand_ins(colors, 40, 20);
    REQUIRE(found.size() == plain.size());
    REQUIRE(found.size() > 5);
    for (std::size_t i = 0; i < found.size(); ++i) {
      CHECK(found[i].color == plain[i].color);
      CHECK(found[i].others == plain[i].others);
      CHECK(found[i].pixels == plain[i].pixels);
    }
  }
}

TEST_CASE("no color stands for less than is worth it", "[core][learn]") {
  const std::vector<DoubtfulColor> colors{
      {{0.5, 0, 0}, 40, true}, {{0.52, 0, 0}, 70, false}, {{0.9, 0, 0}, 10, true}};
  const auto all = color_stand_ins(colors, 5, 0);
  REQUIRE(all.size() == 2);
  CHECK(all[0].color == 0);
  CHECK(all[0].others == std::vector<std::size_t>{1});
  CHECK(all[0].pixels == 110);
  CHECK(all[1].color == 2);
  // Of two that stand for the same, the one that is more of it.
  const std::vector<DoubtfulColor> two{{{0.5, 0, 0}, 40, true}, {{0.52, 0, 0}, 70, true}};
  CHECK(color_stand_ins(two, 5, 0).at(0).color == 1);
  CHECK(color_stand_ins(colors, 5, 11).size() == 1);
  CHECK(color_stand_ins(colors, 1, 0).size() == 1);
  CHECK(color_stand_ins({}, 5, 0).empty());
}
