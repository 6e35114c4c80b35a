// Distinct colors with counts, held against counting every pixel.
#include "core/pixel/color_table.h"

#include <catch2/catch.hpp>
#include <map>
#include <mutex>
#include <numeric>
#include <thread>

#include "core/channel/channel_plan.h"
#include "core/pixel/block_reader.h"
#include "core/pixel/color_tally.h"
#include "core/pixel/memory_source.h"
#include "core/pixel/road.h"
#include "core/stats/histogram.h"
#include "tests/support/pictures.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

/// A picture of few colors, so that most occur often.
std::vector<std::uint8_t> few_colors(std::size_t pixels) {
  auto rgb = random_bytes(3 * pixels);
  for (auto& v : rgb) v = static_cast<std::uint8_t>(v % 11 * 25);
  return rgb;
}

std::vector<std::uint32_t> first_numbers(std::size_t n) {
  std::vector<std::uint32_t> numbers(n);
  std::iota(numbers.begin(), numbers.end(), 0u);
  return numbers;
}

PictureInfo table_info_of(const RasterShape& shape) {
  PictureInfo info;
  info.shape = shape;
  return info;
}

/// Counts one channel of every Block of a picture that `see` hands on.
template <class See>
Histogram counted(const PictureInfo& info, const std::vector<std::byte>& samples,
                  const Channel& channel, std::uint64_t& near_gray, See see) {
  MemorySource source(info.shape, samples);
  const ChannelPlan plan(info, {channel});
  Histogram histogram(channel_binning(channel, 64, PictureInfo{}), channel.is_hue());
  near_gray = 0;
  RoadOptions road;
  road.threads = 1;
  const auto make_worker = [&] {
    return [&, reader = BlockReader(info, {}),
            channels = ChannelEvaluator(plan)](const Band& band) mutable {
      reader.for_each_block(band, [&](const Block& block) {
        const Block seen = see(block);
        channels.evaluate(seen);
        histogram.add(seen, channels.channel(0));
      });
      near_gray += channels.take_near_gray();
      return true;
    };
  };
  travel(source, road, make_worker, [](bool) {});
  return histogram;
}

}  // namespace

TEST_CASE("a color table holds each color once, in order, with its count", "[core][pixel]") {
  const auto rgb = few_colors(20000);
  ColorCounter counter;
  counter.add_stored(bytes_of(rgb).data(), 3, 20000);
  const std::array<std::byte, 3> dark{std::byte{1}, std::byte{2}, std::byte{3}};
  const std::uint32_t number = color_number(dark.data());
  counter.add(std::vector<std::uint32_t>{number, 0xffffff, number});
  std::map<std::array<int, 3>, std::uint32_t> plain{{{1, 2, 3}, 2}, {{255, 255, 255}, 1}};
  for (std::size_t i = 0; i < 20000; ++i) ++plain[{rgb[3 * i], rgb[3 * i + 1], rgb[3 * i + 2]}];
  const ColorTable table = counter.table();
  REQUIRE(table.colors == plain.size());
  CHECK(table.shape.pixels() == table.counts.size());
  CHECK(table.counts.size() % kBlockPixels == 0);
  std::map<std::array<int, 3>, std::uint32_t> found;
  bool in_order = true;
  for (std::size_t i = 0; i < table.colors; ++i) {
    const std::byte* color = table.rgb.data() + 3 * i;
    found[{std::to_integer<int>(color[0]), std::to_integer<int>(color[1]),
           std::to_integer<int>(color[2])}] = table.counts[i];
    in_order &= i == 0 || color_number(color - 3) < color_number(color);
  }
  CHECK(found == plain);
  CHECK(in_order);
  for (std::size_t i = table.colors; i < table.counts.size(); ++i) CHECK(table.counts[i] == 0);

  // The same in pieces.
  CHECK(counter.colors() == table.colors);
  std::mutex one_at_a_time;
  std::size_t colors = 0, pieces = 0;
  bool same = true;
  counter.for_each_piece([&](const ColorPiece& piece) {
    const std::lock_guard lock(one_at_a_time);
    ++pieces;
    colors += piece.size;
    same = same && piece.size > 0 && piece.size <= kBlockPixels &&
           std::equal(piece.pixels, piece.pixels + piece.size, &table.counts[piece.first]) &&
           std::equal(piece.rgb, piece.rgb + 3 * piece.size, &table.rgb[3 * piece.first]);
  });
  CHECK(same);
  CHECK(colors == table.colors);
  CHECK(pieces > 1);
}

TEST_CASE("colors of more pixels than a counter holds are counted whole", "[core][pixel]") {
  const std::map<std::uint8_t, std::uint32_t> plain{
      {3, 255},     {4, 256},       {5, 257}, {6, 512},
      {7, 100'000}, {9, 9'000'000}, {200, 1}, {255, 65'536}};  // 9,000,000 settles more than once
  ColorCounter counter;
  for (const auto& [code, pixels] : plain)
    counter.add_stored(std::vector<std::byte>(pixels, std::byte{code}).data(), 1, pixels);
  const ColorTable table = counter.table();
  REQUIRE(table.colors == plain.size());
  std::map<std::uint8_t, std::uint32_t> found;
  for (std::size_t i = 0; i < table.colors; ++i)
    found[std::to_integer<std::uint8_t>(table.rgb[3 * i])] = table.counts[i];
  CHECK(found == plain);
  const ColorLookup<std::uint32_t> places(std::move(counter), first_numbers(table.colors));
  std::uint32_t place = 0;
  places.find(table.rgb.data() + 3 * 4, 3, 1, &place);
  CHECK(place == 4);
}

TEST_CASE("two counters add up to what one would have counted", "[core][pixel]") {
  const auto rgb = few_colors(40000);
  const auto stored = bytes_of(rgb);
  ColorCounter one, first, second;
  one.add_stored(stored.data(), 3, 40000);
  first.add_stored(stored.data(), 3, 15000);
  second.add_stored(stored.data() + 3 * 15000, 3, 25000);
  // Counts that are full in the one, in the other, in both, and only together.
  const std::map<std::uint8_t, std::array<std::uint32_t, 2>> grays{
      {3, {200, 56}},     {4, {200, 55}},  {5, {0, 256}}, {6, {256, 0}},
      {7, {70'000, 300}}, {9, {255, 255}}, {200, {1, 0}}, {255, {0, 1}}};
  for (const auto& [code, pixels] : grays) {
    const std::vector<std::byte> gray(pixels[0] + pixels[1], std::byte{code});
    first.add_stored(gray.data(), 1, pixels[0]);
    second.add_stored(gray.data(), 1, pixels[1]);
    one.add_stored(gray.data(), 1, pixels[0] + pixels[1]);
  }
  first.add(std::move(second));
  const ColorTable plain = one.table(), sum = first.table();
  CHECK(sum.colors == plain.colors);
  CHECK(sum.rgb == plain.rgb);
  CHECK(sum.counts == plain.counts);
}

TEST_CASE("colors counted by several threads are those of one", "[core][pixel]") {
  constexpr std::size_t kPixels = 600'000, kBand = 3000;
  const auto stored = bytes_of(few_colors(kPixels));
  ColorCounter one;
  one.add_stored(stored.data(), 3, kPixels);
  ColorTally tally;
  std::vector<std::thread> threads;
  for (std::size_t t = 0; t < 6; ++t)
    threads.emplace_back([&, t] {
      for (std::size_t at = t * kBand; at < kPixels; at += 6 * kBand)
        tally.count(
            [&](ColorCounter& counter) { counter.add_stored(stored.data() + 3 * at, 3, kBand); });
    });
  for (std::thread& thread : threads) thread.join();
  const ColorTable plain = one.table(), sum = tally.take().table();
  CHECK(sum.rgb == plain.rgb);
  CHECK(sum.counts == plain.counts);
}

TEST_CASE("a gray counts as a color of three equal channels", "[core][pixel]") {
  const std::vector<std::uint8_t> gray{7, 200, 7, 7, 0};
  ColorCounter counter;
  counter.add_stored(bytes_of(gray).data(), 1, gray.size());
  const ColorTable table = counter.table();
  REQUIRE(table.colors == 3);
  CHECK(table.counts[1] == 3);
  for (int channel = 0; channel < 3; ++channel)
    CHECK(table.rgb[static_cast<std::size_t>(3 + channel)] == std::byte{7});
}

TEST_CASE("a number of every color is found again by the color", "[core][pixel]") {
  const auto rgb = few_colors(5000);
  const auto stored = bytes_of(rgb);
  ColorCounter counter;
  counter.add_stored(stored.data(), 3, 5000);
  const ColorTable table = counter.table();
  const ColorLookup<std::uint32_t> places(std::move(counter), first_numbers(table.colors));
  std::vector<std::uint32_t> found(5000);
  places.find(stored.data(), 3, 5000, found.data());
  bool right = true;
  for (std::size_t i = 0; i < 5000; ++i)
    right &=
        std::memcmp(table.rgb.data() + 3 * std::size_t{found[i]}, stored.data() + 3 * i, 3) == 0;
  CHECK(right);
}

TEST_CASE("of a color that was not counted nothing is found", "[core][pixel]") {
  const std::vector<std::uint8_t> seen{10, 20, 30, 40, 50, 60, 10, 20, 30};
  const std::vector<std::uint8_t> asked{40, 50, 60, 255, 10, 20, 30, 128, 10, 20, 31, 255};
  ColorCounter counter;
  counter.add_stored(bytes_of(seen).data(), 3, 3);
  const ColorTable table = counter.table();
  REQUIRE(table.colors == 2);
  const std::uint8_t first_is_dark = table.rgb[0] == std::byte{10};
  const std::vector<std::uint8_t> classes =
      first_is_dark ? std::vector<std::uint8_t>{7, 9, 200} : std::vector<std::uint8_t>{9, 7, 200};
  const ColorLookup<std::uint8_t> lookup(std::move(counter), classes);
  std::vector<std::uint8_t> found(3, 99);
  lookup.find(bytes_of(asked).data(), 4, 3, found.data());
  CHECK(found == std::vector<std::uint8_t>{9, 7, 0});
}

TEST_CASE("which pictures have countable colors", "[core][pixel]") {
  CHECK(ColorCounter::fits(table_info_of({10, 10, 3, SampleType::kU8})));
  CHECK(ColorCounter::fits(table_info_of({10, 10, 1, SampleType::kU8})));
  CHECK_FALSE(ColorCounter::fits(table_info_of({10, 10, 3, SampleType::kU16})));
  PictureInfo with_alpha = table_info_of({10, 10, 4, SampleType::kU8});
  with_alpha.alpha = AlphaKind::kStraight;
  CHECK(ColorCounter::fits(with_alpha));
  with_alpha.alpha = AlphaKind::kPremultiplied;
  CHECK_FALSE(ColorCounter::fits(with_alpha));
  CHECK_FALSE(ColorCounter::fits(table_info_of({100000, 50000, 3, SampleType::kU8})));
}

TEST_CASE("histograms of the table are those of the pixels", "[core][pixel]") {
  const auto samples = bytes_of(few_colors(300 * 217));
  const PictureInfo info = table_info_of({300, 217, 3, SampleType::kU8});
  ColorCounter counter;
  counter.add_stored(samples.data(), 3, info.shape.pixels());
  const ColorTable table = counter.table();
  for (const char* name : {"srgb.g", "hsv.h", "hsv.s", "lab.a", "oklch.h", "gray", "file.2"}) {
    INFO(name);
    const Channel channel = channel_named(name);
    std::uint64_t near_gray = 0, near_gray_by_color = 0;
    const Histogram pixels =
        counted(info, samples, channel, near_gray, [](const Block& block) { return block; });
    const Histogram colors =
        counted(table_info_of(table.shape), table.rgb, channel, near_gray_by_color,
                [&](const Block& block) { return table.weighted(block); });
    CHECK(colors.total() == 300 * 217);
    bool same = colors.no_hue() == pixels.no_hue() && near_gray == near_gray_by_color;
    for (std::size_t b = 0; b < 64; ++b) same &= colors.count(b) == pixels.count(b);
    CHECK(same);
  }
}
