// Drawing pixels and counting labels.
#include "core/assess/sample_draw.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <map>
#include <numeric>
#include <random>

#include "core/assess/label_counts.h"
#include "core/pixel/pixel_hash.h"

using namespace chalcedony;

namespace {

/// Draws from `pixels` pixels whose stratum is pixel % 3.
std::vector<DrawnPixel> draw_thirds(std::uint64_t seed, std::uint64_t pixels,
                                    const std::vector<std::uint64_t>& wanted) {
  SampleDraw draw(seed, std::vector<std::uint64_t>(3, pixels / 3), wanted);
  std::vector<std::vector<DrawnPixel>> candidates(3);
  for (std::uint64_t p = 0; p < pixels; ++p)
    if (const std::uint64_t hash = draw.hash_of(p); draw.may_take(p % 3, hash))
      candidates[p % 3].push_back({hash, p, {}});
  return draw.drawn(candidates);
}

}  // namespace

TEST_CASE("the drawn pixels are those with the smallest hashes of each stratum", "[core][assess]") {
  const auto drawn = draw_thirds(7, 30000, {50, 0, 9});
  REQUIRE(drawn.size() == 59);
  CHECK(std::is_sorted(drawn.begin(), drawn.end(),
                       [](const DrawnPixel& a, const DrawnPixel& b) { return a.hash < b.hash; }));
  std::vector<std::pair<std::uint64_t, std::uint64_t>> plain;
  for (const auto& [stratum, wanted] : {std::pair{0u, 50u}, {2u, 9u}}) {
    std::vector<std::pair<std::uint64_t, std::uint64_t>> all;
    for (std::uint64_t p = stratum; p < 30000; p += 3) all.emplace_back(pixel_hash(7, p), p);
    std::sort(all.begin(), all.end());
    plain.insert(plain.end(), all.begin(), all.begin() + wanted);
  }
  std::sort(plain.begin(), plain.end());
  for (std::size_t i = 0; i < plain.size(); ++i) CHECK(drawn[i].pixel == plain[i].second);
  CHECK(draw_thirds(8, 30000, {50, 0, 9})[0].pixel != drawn[0].pixel);
}

TEST_CASE("drawing all of a stratum takes every pixel once, and evenly over the picture",
          "[core][assess]") {
  CHECK(draw_thirds(1, 300, {100, 100, 100}).size() == 300);
  const auto drawn = draw_thirds(3, 300000, {10000, 10000, 10000});
  std::array<int, 10> tenths{};
  for (const DrawnPixel& d : drawn) ++tenths[d.pixel / 30000];
  // 3000 expected in each; five standard deviations are 260.
  for (const int n : tenths) CHECK(std::abs(n - 3000) < 260);
}

TEST_CASE("too few candidates are noticed, and widening takes all", "[core][assess]") {
  SampleDraw draw(1, {1000000}, {10});
  CHECK(draw.drawn({{{5, 1, {}}, {3, 2, {}}}}).empty());
  std::vector<DrawnPixel> ten(10);
  for (std::uint64_t p = 0; p < 10; ++p) ten[p] = {draw.hash_of(p), p, {}};
  std::size_t before = 0;
  for (const DrawnPixel& d : ten) before += draw.may_take(0, d.hash);
  CHECK(before < 10);
  draw.widen();
  for (const DrawnPixel& d : ten) CHECK(draw.may_take(0, d.hash));
  CHECK(draw.drawn({ten}).size() == 10);
}

TEST_CASE("numbers of pixels are shared out among strata", "[core][assess]") {
  using Numbers = std::vector<std::uint64_t>;
  CHECK(equal_allocation(10, {100, 100, 100}) == Numbers{4, 3, 3});
  CHECK(equal_allocation(30, {100, 4, 100}) == Numbers{10, 4, 10});
  CHECK(proportional_allocation(10, {700, 250, 50}) == Numbers{7, 3, 0});
  CHECK(proportional_allocation(7, {1, 1, 1}) == Numbers{1, 1, 1});
  const auto many = proportional_allocation(1000, {333, 333, 334, 1000});
  CHECK(std::accumulate(many.begin(), many.end(), std::uint64_t{0}) == 1000);
}

TEST_CASE("labels are counted together, whatever their numbers", "[core][assess]") {
  std::mt19937 random(2);
  std::map<Labels, std::uint64_t> plain;
  LabelCounts first, second;
  for (int i = 0; i < 60000; ++i) {
    const auto label = [&](unsigned most) { return static_cast<std::uint16_t>(random() % most); };
    Labels labels(label(40), static_cast<std::uint16_t>(label(30) * 2000));
    labels.add(kOfVersus, label(3));
    labels.add(Labels::kMost - 1, static_cast<std::uint16_t>(label(2) * 65535));
    ++plain[labels];
    (i % 2 ? first : second).add(labels);
  }
  first.merge(second);
  std::map<Labels, std::uint64_t> counted;
  for (const LabelTotal& one : first.totals()) counted[one.labels] += one.count;
  CHECK(counted == plain);
}
