// Histograms, percentiles and moments against hand counts and plain sorting.
#include <algorithm>
#include <array>
#include <catch2/catch.hpp>
#include <cmath>
#include <limits>
#include <numbers>
#include <random>
#include <set>

#include "core/stats/binning.h"
#include "core/stats/distinct_colors.h"
#include "core/stats/histogram.h"
#include "core/stats/moments.h"
#include "core/stats/ranks.h"
#include "tests/support/instruction_sets.h"

using namespace chalcedony;

namespace {

constexpr float kNone = std::numeric_limits<float>::quiet_NaN();

Block counted_block_of(std::size_t n) {
  Block block;
  block.picture_width = static_cast<std::uint32_t>(n);
  block.size = n;
  block.counted_size = n;
  return block;
}

/// As planes are.
std::vector<float> padded(std::vector<float> values) {
  values.resize(values.size() + kPlanePadding, 99);
  return values;
}

}  // namespace

TEST_CASE("distinct colors are counted up to a million", "[core][stats]") {
  std::vector<float> r, g, b;
  std::vector<std::uint8_t> counted;
  const auto count_of = [&](std::size_t parts) {
    DistinctColors all;
    for (std::size_t part = 0; part < parts; ++part) {
      DistinctColors colors;
      for (std::size_t at = part * kBlockPixels; at < r.size(); at += parts * kBlockPixels) {
        Block block;
        block.size = std::min(kBlockPixels, r.size() - at);
        block.color = {r.data() + at, g.data() + at, b.data() + at};
        block.counted = counted.data() + at;
        colors.add(block);
      }
      all.merge(colors);
    }
    return all.count();
  };
  const auto add = [&](float red, float green, float blue, bool counts = true) {
    r.push_back(red), g.push_back(green), b.push_back(blue), counted.push_back(counts);
  };
  CHECK(count_of(1) == 0u);
  add(0.0f, 1, 2), add(-0.0f, 1, 2), add(2, 1, 0), add(1, 0, 2), add(9, 9, 9, false);
  CHECK(count_of(1) == 3u);
  std::set<std::array<float, 3>> seen{{0, 1, 2}, {2, 1, 0}, {1, 0, 2}};
  std::mt19937 random(3);
  for (int i = 0; i < 60000; ++i) {
    const auto value = [&] { return static_cast<float>(random() % 40) / 3; };
    const std::array<float, 3> color{value(), value(), value()};
    seen.insert(color);
    add(color[0], color[1], color[2]);
  }
  CHECK(count_of(1) == seen.size());
  CHECK(count_of(3) == seen.size());
  const std::size_t before = r.size();
  for (std::size_t i = 0; i < DistinctColors::kMost - seen.size(); ++i)
    add(1000 + static_cast<float>(i), 0, 0);
  CHECK(count_of(2) == DistinctColors::kMost);
  add(-1, 0, 0);
  CHECK(count_of(1) == std::nullopt);
  CHECK(count_of(2) == std::nullopt);
  r.resize(before), g.resize(before), b.resize(before), counted.resize(before);
  CHECK(count_of(2) == seen.size());
}

TEST_CASE("bins are half-open and the last one closed", "[core][stats][histogram]") {
  const Binning bins(0, 100, 4);
  CHECK(bins.bin_of(0.0f) == 0);
  CHECK(bins.bin_of(24.999998f) == 0);
  CHECK(bins.bin_of(25.0f) == 1);
  CHECK(bins.bin_of(75.0f) == 3);
  CHECK(bins.bin_of(100.0f) == 3);
  CHECK(bins.bin_of(100.00001f) == Binning::kAbove);
  CHECK(bins.bin_of(-0.00001f) == Binning::kBelow);
  CHECK(bins.bin_of(kNone) == Binning::kNotANumber);
  CHECK(bins.bin_of(-std::numeric_limits<float>::infinity()) == Binning::kBelow);
}

TEST_CASE("values that are whole numbers are known", "[core][stats][histogram]") {
  PictureInfo info;
  info.shape = {1, 1, 3, SampleType::kU8};
  const auto codes = [&](const char* name) { return has_codes(channel_named(name), info); };
  CHECK(codes("srgb.g"));
  CHECK(codes("file.2"));
  CHECK_FALSE(codes("gray"));
  CHECK_FALSE(codes("lab.l"));
  info.full_scale = 200;  // 7 of 200 is 8.925 of 255
  CHECK_FALSE(codes("srgb.g"));
  CHECK(codes("file.2"));
  info.full_scale = 255;
  info.space = &spaces::kYcbcr;
  CHECK(codes("ycbcr.cb"));
  CHECK_FALSE(codes("srgb.g"));
  info.shape.channels = 1;
  for (const Space* space : {&spaces::kSrgb, &spaces::kGray}) {
    info.space = space;
    CHECK(codes("gray"));
  }
  info.shape.sample = SampleType::kU16;
  CHECK_FALSE(codes("gray"));
  CHECK_FALSE(codes("file.0"));
}

TEST_CASE("a value on any edge falls into the bin that begins there", "[core][stats][histogram]") {
  for (const auto& [low, high, count] :
       {std::tuple{0.0, 360.0, 120}, std::tuple{0.0, 256.0, 256}, std::tuple{-0.4, 0.4, 77},
        std::tuple{0.0, 100.0, 49}, std::tuple{-125.0, 125.0, 333}}) {
    const Binning bins(low, high, static_cast<std::size_t>(count));
    std::mt19937 random(1);
    for (int i = 0; i < 20000; ++i) {
      const double part = i < count ? static_cast<double>(i) / count : random() / 4294967296.0;
      const float value = static_cast<float>(low + (high - low) * part);
      const std::int32_t bin = bins.bin_of(value);
      if (bin < 0) continue;  // rounding to float may step over an end
      const auto b = static_cast<std::size_t>(bin);
      const bool inside = value >= bins.edge(b) &&
                          (value < bins.edge(b + 1) || (b + 1 == bins.bins() && value <= high));
      if (!inside) FAIL("value " << value << " in bin " << bin << " of " << count);
    }
  }
  SUCCEED("no value outside its bin");
}

TEST_CASE("histograms count by hand and sum to the counted pixels", "[core][stats][histogram]") {
  const float values[] = {0, 10, 10, 359.5f, 360, kNone, 400, -1};
  Histogram hue(Binning(0, 360, 36), true);
  Block block = counted_block_of(8);
  hue.add(block, values);
  CHECK(hue.count(0) == 1);
  CHECK(hue.count(1) == 2);
  CHECK(hue.count(35) == 2);
  CHECK(hue.no_hue() == 1);
  CHECK(hue.above() == 1);
  CHECK(hue.below() == 1);
  CHECK(hue.total() == 8);
  const std::uint8_t counted[] = {1, 0, 1, 0, 0, 1, 0, 0};
  block.counted = counted;
  Histogram some(Binning(0, 360, 36), false);
  some.add(block, values);
  CHECK(some.total() == 3);
  CHECK(some.not_a_number() == 1);
  some.merge(some);
  CHECK(some.total() == 6);
}

TEST_CASE("joint histograms count pairs and keep the reasons apart", "[core][stats][histogram]") {
  const float first[] = {5, 15, kNone, 400, 15, 15};
  const float second[] = {50, 50, 50, 50, kNone, 100};
  JointHistogram joint(Binning(0, 360, 36), true, Binning(0, 100, 2), false);
  joint.add(counted_block_of(6), first, second);
  CHECK(joint.count(0, 1) == 1);
  CHECK(joint.count(1, 1) == 2);
  CHECK(joint.no_hue() == 1);
  CHECK(joint.outside() == 1);
  CHECK(joint.not_a_number() == 1);
  CHECK(joint.total() == 6);
}

TEST_CASE("percentiles are nearest-rank, exactly as from a sorted list", "[core][stats][ranks]") {
  std::mt19937 random(9);
  for (const int kind : {0, 1, 2}) {
    std::vector<float> values;
    for (int i = 0; i < 3777; ++i) {
      const double u = random() / 4294967296.0;
      values.push_back(kind == 0   ? std::floor(static_cast<float>(u * 256))   // 8-bit codes
                       : kind == 1 ? static_cast<float>(u * 250 - 125)         // signed reals
                                   : -std::floor(static_cast<float>(u * 9)));  // negative codes
    }
    const std::vector<double> percentiles{0.01, 1, 5, 25, 50, 75, 95, 99, 100};
    Ranks ranks;
    const Block block = counted_block_of(values.size());
    ranks.add_coarse(block, values.data());
    if (ranks.refine(percentiles)) ranks.add_fine(block, values.data());
    std::sort(values.begin(), values.end());
    for (const double p : percentiles) {
      const auto rank = static_cast<std::size_t>(
          std::max(1.0, std::ceil(p / 100 * static_cast<double>(values.size()) - 1e-9)));
      INFO("kind " << kind << ", percentile " << p);
      CHECK(ranks.percentile(p) == values[rank - 1]);
    }
  }
  CHECK_FALSE(Ranks().percentile(50).has_value());
}

TEST_CASE("bins of many values are those of each", "[core][stats]") {
  std::vector<float> values{kNone, -std::numeric_limits<float>::infinity(),
                            std::numeric_limits<float>::infinity(), 0.0f, -0.0f};
  for (const Binning& bins : {Binning(0, 100, 7), Binning(-0.3, 0.4, 65536), Binning(5, 6, 1)}) {
    std::vector<float> all = values;
    for (std::size_t i = 0; i <= bins.bins(); i += std::max<std::size_t>(1, bins.bins() / 300)) {
      const auto edge = static_cast<float>(bins.edge(i));
      all.insert(all.end(), {edge, std::nextafter(edge, -1e9f), std::nextafter(edge, 1e9f)});
    }
    test::for_each_instruction_set([&](const std::string& name) {
      INFO(name);
      std::vector<std::int32_t> found(all.size());
      bins.find_bins(all.data(), all.size(), found.data());
      bool same = true;
      for (std::size_t i = 0; i < all.size(); ++i) same = same && found[i] == bins.bin_of(all[i]);
      CHECK(same);
    });
  }
}

TEST_CASE("moments divide by n and count both ends of the range", "[core][stats][moments]") {
  const std::vector<float> values = padded({0, 2, 4, kNone, 255, 255});
  Moments m;
  m.add(counted_block_of(6), values.data(), 0, 255);
  CHECK(m.count == 5);
  CHECK(m.at_low == 1);
  CHECK(m.at_high == 2);
  CHECK(m.smallest == 0);
  CHECK(m.largest == 255);
  CHECK(m.mean() == Approx(103.2));
  CHECK(m.standard_deviation() ==
        Approx(std::sqrt((0 + 4 + 16 + 2 * 65025) / 5.0 - 103.2 * 103.2)));
}

TEST_CASE("moments are the same with any instructions, and hear nothing of uncounted pixels",
          "[core][stats][moments]") {
  std::vector<float> values;
  std::vector<std::uint8_t> counted;
  for (int i = 0; i < 533; ++i) {
    values.push_back(i % 50 == 0 ? std::numeric_limits<float>::infinity()
                                 : 0.37f * static_cast<float>(i));
    counted.push_back(i % 50 == 0 || i % 3 == 0 ? 0 : 1);
  }
  double sum = 0, squares = 0;
  for (std::size_t i = 0; i < values.size(); ++i) {
    if (!counted[i]) continue;
    sum += static_cast<double>(values[i]);
    squares += static_cast<double>(values[i]) * static_cast<double>(values[i]);
  }
  Block block = counted_block_of(values.size());
  block.counted = counted.data();
  values = padded(values);
  std::vector<Moments> found;
  test::for_each_instruction_set([&](const std::string&) {
    Moments m;
    m.add(block, values.data(), 10, 150);
    found.push_back(m);
  });
  for (const Moments& m : found) {
    CHECK(m.count == static_cast<std::uint64_t>(std::count(counted.begin(), counted.end(), 1)));
    CHECK(m.sum == Approx(sum).epsilon(1e-13));
    CHECK(m.sum_of_squares == Approx(squares).epsilon(1e-13));
    CHECK(m.sum == found.front().sum);
    CHECK(m.sum_of_squares == found.front().sum_of_squares);
    CHECK(m.smallest == 0.37f);
    CHECK(m.largest == 0.37f * 532);
    CHECK(m.at_low == 18);  // up to 27, less every third
    CHECK(m.at_high == found.front().at_high);
  }
}

TEST_CASE("a hue has a circular mean through red", "[core][stats][moments]") {
  const std::vector<float> hues = padded({350, 10, kNone});
  HueMoments h;
  h.add(counted_block_of(3), hues.data());
  CHECK(h.count == 2);
  const double mean = h.mean();
  CHECK(std::min(mean, 360 - mean) == Approx(0).margin(1e-9));
  // R = cos 10 degrees, so the spread is sqrt(-2 ln cos 10).
  CHECK(h.spread() == Approx(std::sqrt(-2 * std::log(std::cos(0.174532925))) * 57.29577951));
}

TEST_CASE("hues have the directions of the C library, to the bit with any instructions",
          "[core][stats][moments]") {
  std::vector<float> hues;
  double sine = 0, cosine = 0;
  for (int i = 0; i < 723; ++i) {
    hues.push_back(static_cast<float>(i) * 0.9987f - 361);
    const double radians = static_cast<double>(hues.back()) * std::numbers::pi / 180;
    sine += std::sin(radians) * (i % 7 == 0 ? 0 : 1);
    cosine += std::cos(radians) * (i % 7 == 0 ? 0 : 1);
  }
  std::vector<std::uint8_t> counted(hues.size(), 1);
  for (std::size_t i = 0; i < counted.size(); i += 7) counted[i] = 0;
  Block block = counted_block_of(hues.size());
  block.counted = counted.data();
  hues = padded(hues);
  std::vector<HueMoments> found;
  test::for_each_instruction_set([&](const std::string&) {
    HueMoments h;
    h.add(block, hues.data());
    found.push_back(h);
  });
  for (const HueMoments& h : found) {
    CHECK(h.count == 723 - 104);
    CHECK(h.sine == Approx(sine).margin(1e-11));
    CHECK(h.cosine == Approx(cosine).margin(1e-11));
    CHECK(h.sine == found.front().sine);
    CHECK(h.cosine == found.front().cosine);
  }

  // Hues that are all the same have no spread.
  const std::vector<float> same(1000 + kPlanePadding, 211.7f);
  HueMoments one;
  one.add(counted_block_of(1000), same.data());
  CHECK(one.mean() == Approx(211.7).margin(1e-5));
  CHECK(one.spread() < 1e-5);
}

TEST_CASE("a pixel with a weight counts for so many", "[core][stats]") {
  const std::vector<float> values = padded({3.25f, -1.1f, 80.0f, kNone, 255.0f, 0.0f, 17.3f});
  const std::vector<std::uint32_t> weights{4, 1, 0, 9, 30, 12, 3};
  std::vector<float> each;
  for (std::size_t i = 0; i < weights.size(); ++i) each.insert(each.end(), weights[i], values[i]);
  Block weighted = counted_block_of(weights.size());
  weighted.weights = weights.data();
  const Block plain = counted_block_of(each.size());
  each = padded(each);

  Moments by_weight, one_by_one;
  by_weight.add(weighted, values.data(), 0, 255);
  one_by_one.add(plain, each.data(), 0, 255);
  CHECK(by_weight.count == 50);
  CHECK(by_weight.count == one_by_one.count);
  CHECK(by_weight.at_low == 13);
  CHECK(by_weight.at_high == 30);
  CHECK(by_weight.smallest == -1.1f);
  CHECK(by_weight.largest == 255.0f);  // 80 stands for no pixel
  CHECK(by_weight.mean() == Approx(one_by_one.mean()));
  CHECK(by_weight.standard_deviation() == Approx(one_by_one.standard_deviation()));

  HueMoments hue_by_weight, hue_one_by_one;
  hue_by_weight.add(weighted, values.data());
  hue_one_by_one.add(plain, each.data());
  CHECK(hue_by_weight.count == 50);
  CHECK(hue_by_weight.mean() == Approx(hue_one_by_one.mean()));
  CHECK(hue_by_weight.spread() == Approx(hue_one_by_one.spread()));

  const std::vector<double> percentiles{1, 2, 3, 26, 27, 34, 40, 41, 100};
  Ranks ranks, plain_ranks;
  ranks.add_coarse(weighted, values.data());
  plain_ranks.add_coarse(plain, each.data());
  REQUIRE(ranks.refine(percentiles));
  REQUIRE(plain_ranks.refine(percentiles));
  ranks.add_fine(weighted, values.data());
  plain_ranks.add_fine(plain, each.data());
  for (const double p : percentiles) CHECK(ranks.percentile(p) == plain_ranks.percentile(p));
}
