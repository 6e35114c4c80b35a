// Peaks of made-up histograms whose peaks are known.
#include "core/stats/peaks.h"

#include <catch2/catch.hpp>
#include <cmath>

using namespace chalcedony;

namespace {

/// Adds a bell of so many pixels around a bin, on an axis that may be circular.
void add_bell(std::vector<std::uint64_t>& counts, double center, double deviation, double pixels,
              bool circular = false) {
  const double n = static_cast<double>(counts.size());
  for (std::size_t b = 0; b < counts.size(); ++b) {
    double away = static_cast<double>(b) - center;
    if (circular) away -= n * std::round(away / n);
    counts[b] += static_cast<std::uint64_t>(pixels / (deviation * 2.5066) *
                                            std::exp(-0.5 * away * away / (deviation * deviation)));
  }
}

bool holds(const BinRange& range, std::size_t bin, std::size_t bins) {
  return (bin + bins - range.first) % bins < range.count;
}

}  // namespace

TEST_CASE("peaks of one channel come out by size, each with its range", "[core][stats]") {
  std::vector<std::uint64_t> counts(256);
  add_bell(counts, 40, 5, 30000);
  add_bell(counts, 120, 8, 90000);
  add_bell(counts, 200, 4, 10000);
  const auto peaks = find_peaks(counts, {256, false}, {}, 10);
  REQUIRE(peaks.size() == 3);
  const double centers[] = {120, 40, 200}, deviations[] = {8, 5, 4};
  for (std::size_t p = 0; p < 3; ++p) {
    const BinRange& range = peaks[p].range[0];
    const double first = static_cast<double>(range.first),
                 last = static_cast<double>(range.first + range.count - 1);
    // All but half a percent on either side of a bell lies within 2.58 deviations.
    CHECK(centers[p] - first == Approx(2.58 * deviations[p]).margin(2));
    CHECK(last - centers[p] == Approx(2.58 * deviations[p]).margin(2));
    CHECK(peaks[p].range[1].count == 1);
  }
  CHECK(peaks[0].pixels == Approx(90000).epsilon(0.02));
  CHECK(find_peaks(counts, {256, false}, {}, 2).size() == 2);
}

TEST_CASE("a ripple on a peak is no peak of its own", "[core][stats]") {
  std::vector<std::uint64_t> counts(256);
  add_bell(counts, 128, 20, 100000);
  for (std::size_t b = 0; b < 256; b += 2) counts[b] = counts[b] * 11 / 10;
  add_bell(counts, 150, 3, 1500);
  CHECK(find_peaks(counts, {256, false}, {}, 10).size() == 1);
}

TEST_CASE("a peak of hue goes on through 360", "[core][stats]") {
  std::vector<std::uint64_t> counts(120);
  add_bell(counts, 118.5, 3, 50000, true);
  add_bell(counts, 60, 3, 20000, true);
  const auto round = find_peaks(counts, {120, true}, {}, 10);
  REQUIRE(round.size() == 2);
  CHECK(holds(round[0].range[0], 115, 120));
  CHECK(holds(round[0].range[0], 2, 120));
  CHECK_FALSE(holds(round[0].range[0], 60, 120));
  CHECK(round[0].range[0].count < 24);
  // On a straight axis these are two ends.
  CHECK(find_peaks(counts, {120, false}, {}, 10).size() == 3);
}

TEST_CASE("peaks of two channels are told apart though each channel overlaps", "[core][stats]") {
  const std::size_t n = 60;
  std::vector<std::uint64_t> counts(n * n);
  const auto spot = [&](double a, double b, double height) {
    for (std::size_t i = 0; i < n; ++i)
      for (std::size_t j = 0; j < n; ++j) {
        const double da = static_cast<double>(i) - a, db = static_cast<double>(j) - b;
        counts[i * n + j] +=
            static_cast<std::uint64_t>(height * std::exp(-(da * da + db * db) / 8));
      }
  };
  spot(20, 15, 900);
  spot(20, 40, 600);
  spot(45, 40, 300);
  const auto peaks = find_peaks(counts, {n, false}, {n, false}, 10);
  REQUIRE(peaks.size() == 3);
  CHECK(holds(peaks[0].range[0], 20, n));
  CHECK(holds(peaks[0].range[1], 15, n));
  CHECK_FALSE(holds(peaks[0].range[1], 40, n));
  CHECK(holds(peaks[2].range[0], 45, n));
  CHECK(find_peaks(std::vector<std::uint64_t>(n * n), {n, false}, {n, false}, 10).empty());
}
