// Histograms by class: overlaps, and the interval that takes a class best.
#include "core/stats/class_histogram.h"

#include <catch2/catch.hpp>
#include <random>

using namespace chalcedony;

namespace {

/// Values with their classes, counted in `bins` bins from 0 to 10.
ClassHistogram counted(const std::vector<std::pair<float, std::uint8_t>>& pixels, std::size_t bins,
                       std::size_t classes) {
  ClassHistogram histogram(Binning(0, 10, bins), classes);
  for (std::size_t first = 0; first < pixels.size(); first += 100) {
    std::vector<float> values(kBlockPixels);
    std::vector<std::uint8_t> labels(kBlockPixels);
    Block block;
    block.size = std::min<std::size_t>(100, pixels.size() - first);
    block.counted_size = block.size;
    for (std::size_t i = 0; i < block.size; ++i) std::tie(values[i], labels[i]) = pixels[first + i];
    histogram.add(block, values.data(), labels.data());
  }
  return histogram;
}

double gain_of(const ClassHistogram& h, std::size_t c, std::size_t first, std::size_t count) {
  double gain = 0;
  for (std::size_t i = 0; i < count; ++i) {
    const std::size_t bin = (first + i) % h.binning().bins();
    gain += h.shares(c)[bin];
    double others = 0;
    for (std::size_t o = 0; o < h.classes(); ++o)
      if (o != c) others += h.shares(o)[bin];
    gain -= others / static_cast<double>(h.classes() - 1);
  }
  return gain;
}

}  // namespace

TEST_CASE("each class is counted for itself", "[core][stats]") {
  const float none = std::numeric_limits<float>::quiet_NaN();
  const ClassHistogram h =
      counted({{0.5f, 1}, {0.7f, 1}, {9.9f, 2}, {10, 2}, {3, 0}, {-1, 1}, {none, 2}}, 10, 2);
  CHECK(h.count(0, 0) == 2);
  CHECK(h.count(1, 9) == 2);
  CHECK(h.count(0, 3) + h.count(1, 3) == 0);  // of no class
  CHECK(h.beside(0) == 1);
  CHECK(h.beside(1) == 1);
  CHECK(h.total(0) == 3);
  CHECK(h.shares(0)[0] == Approx(2 / 3.0));
  ClassHistogram twice = h;
  twice.merge(h);
  CHECK(twice.total(1) == 6);
  CHECK(twice.shares(0) == h.shares(0));
}

TEST_CASE("counts of other classes are added class by class", "[core][stats]") {
  const ClassHistogram h = counted({{0.5f, 1}, {0.7f, 1}, {9.9f, 2}, {-1, 2}, {4, 0}}, 10, 2);
  ClassHistogram all(h.binning(), 3);
  all.merge(h, {2, 0});
  all.merge(h, {2, 1});
  all.add(1, 4, 7);
  all.add(1, Binning::kNotANumber, 2);
  CHECK(all.total(0) == 2);
  CHECK(all.total(1) == 2 + 9);
  CHECK(all.count(1, 4) == 7);
  CHECK(all.beside(1) == 3);
  CHECK(all.count(2, 0) == 4);
  CHECK(all.total(2) == 4);
  // 9 around to 0, of which the class has one of two.
  CHECK(share_in(all, 0, {9, 2}) == 0.5);
  CHECK(share_in(ClassHistogram(h.binning(), 1), 0, {0, 10}) == 0);
}

TEST_CASE("classes overlap by the smaller of their shares", "[core][stats]") {
  const ClassHistogram apart = counted({{1, 1}, {2, 1}, {7, 2}, {8, 2}}, 10, 2);
  CHECK(overlap(apart, 0, 1) == 0);
  CHECK(overlap(apart, 0, 0) == Approx(1));
  const ClassHistogram half = counted({{1, 1}, {2, 1}, {2, 2}, {8, 2}}, 10, 2);
  CHECK(overlap(half, 0, 1) == Approx(0.5));
  // However many pixels they have, and beside the bins too.
  const ClassHistogram few = counted({{1, 1}, {20, 1}, {1, 2}, {1, 2}, {1, 2}, {30, 2}}, 10, 2);
  CHECK(overlap(few, 0, 1) == Approx(0.5 + 0.25));
  CHECK(overlap(counted({{1, 1}}, 10, 2), 0, 1) == 0);  // one class has no pixels
  // Two normal distributions d standard deviations apart overlap by 2 Phi(-d / 2).
  std::mt19937 random(3);
  std::normal_distribution<float> low(4, 0.5f), high(5, 0.5f);
  std::vector<std::pair<float, std::uint8_t>> pixels;
  for (int i = 0; i < 200000; ++i) {
    pixels.emplace_back(low(random), 1);
    pixels.emplace_back(high(random), 2);
  }
  CHECK(overlap(counted(pixels, 200, 2), 0, 1) == Approx(0.3173).margin(0.006));
}

TEST_CASE("the best interval is the best of all intervals", "[core][stats]") {
  std::mt19937 random(7);
  for (int round = 0; round < 20; ++round) {
    std::vector<std::pair<float, std::uint8_t>> pixels;
    for (int i = 0; i < 300; ++i)
      pixels.emplace_back(static_cast<float>(random() % 1000) / 100,
                          static_cast<std::uint8_t>(1 + random() % 3));
    const ClassHistogram h = counted(pixels, 12, 3);
    for (std::size_t c = 0; c < 3; ++c)
      for (const bool circle : {false, true}) {
        double best = -1;
        for (std::size_t first = 0; first < 12; ++first)
          for (std::size_t count = 1; count <= (circle ? 12 : 12 - first); ++count)
            best = std::max(best, gain_of(h, c, first, count));
        const ClassInterval found = best_interval(h, c, circle);
        CHECK(found.gain() == Approx(best).margin(1e-12));
        CHECK(gain_of(h, c, found.bins.first, found.bins.count) == Approx(best).margin(1e-12));
        if (!circle) CHECK(found.bins.first + found.bins.count <= 12);
      }
  }
}

TEST_CASE("an interval of a hue runs through its end", "[core][stats]") {
  std::vector<std::pair<float, std::uint8_t>> pixels;
  for (const float value : {0.1f, 0.6f, 9.5f}) pixels.emplace_back(value, 1);
  for (const float value : {3.0f, 5.0f, 7.0f}) pixels.emplace_back(value, 2);
  const ClassHistogram h = counted(pixels, 10, 2);
  const ClassInterval around = best_interval(h, 0, true);
  CHECK(around.own == Approx(1));
  CHECK(around.others == 0);
  CHECK(around.bins.first + around.bins.count > 10);
  CHECK(best_interval(h, 0, false).own == Approx(2 / 3.0));
}
