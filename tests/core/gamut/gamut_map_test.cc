// Gamut mapping against the algorithm of CSS Color 4 written out in double, one color at a time.
#include "core/gamut/gamut_map.h"

#include <algorithm>
#include <array>
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "core/pixel/block_reader.h"
#include "core/pixel/block_writer.h"
#include "core/pixel/memory_source.h"
#include "core/pixel/reordered_rows.h"
#include "tests/support/pictures.h"
#include "tests/support/plain_color.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

bool within(const Triple& rgb) {
  return std::all_of(rgb.begin(), rgb.end(), [](double v) { return v >= -0.01 && v <= 255.01; });
}
Triple clipped(Triple rgb) {
  for (double& v : rgb) v = std::clamp(v, 0.0, 255.0);
  return rgb;
}
double delta_e_ok(const Triple& rgb, const Triple& oklch) {
  const Triple a = convert_color(spaces::kSrgb, spaces::kOklab, rgb);
  const Triple b = convert_color(spaces::kOklch, spaces::kOklab, oklch);
  return std::hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
}

/// CSS Color 4, 13.2.
Triple mapped(const Triple& rgb) {
  constexpr double kJustSeen = 0.02, kNear = 0.0001;
  Triple current = convert_color(spaces::kSrgb, spaces::kOklch, rgb);
  if (current[0] >= 1) return {255, 255, 255};
  if (current[0] <= 0) return {0, 0, 0};
  if (within(rgb)) return rgb;
  Triple result = clipped(rgb);
  if (delta_e_ok(result, current) < kJustSeen) return result;
  double low = 0, high = current[1];
  bool low_within = true;
  while (high - low > kNear) {
    current[1] = (low + high) / 2;
    const Triple shown = convert_color(spaces::kOklch, spaces::kSrgb, current);
    if (low_within && within(shown)) {
      low = current[1];
      continue;
    }
    result = clipped(shown);
    const double difference = delta_e_ok(result, current);
    if (difference >= kJustSeen) {
      high = current[1];
    } else if (kJustSeen - difference < kNear) {
      return result;
    } else {
      low_within = false;
      low = current[1];
    }
  }
  return clipped(convert_color(spaces::kOklch, spaces::kSrgb, current));
}

}  // namespace

TEST_CASE("colors out of gamut lose chroma as CSS says", "[core][color]") {
  std::mt19937 random(11);
  std::uniform_real_distribution<double> value(-150, 400);
  PlaneBuffer planes;
  constexpr std::size_t kCount = 500;
  std::vector<Triple> colors;
  for (std::size_t i = 0; i < kCount; ++i) {
    colors.push_back({value(random), value(random), value(random)});
    for (std::size_t c = 0; c < 3; ++c) planes.plane(c)[i] = static_cast<float>(colors[i][c]);
  }
  GamutMap map(spaces::kSrgb);
  map.run(planes.planes(), kCount);
  for (std::size_t i = 0; i < kCount; ++i) {
    const Triple wanted = mapped(colors[i]);
    CAPTURE(i, colors[i][0], colors[i][1], colors[i][2]);
    for (std::size_t c = 0; c < 3; ++c) {
      REQUIRE(planes.plane(c)[i] >= -0.01f);
      REQUIRE(planes.plane(c)[i] <= 255.01f);
      REQUIRE(double{planes.plane(c)[i]} == Approx(wanted[c]).margin(0.5));
    }
  }
}

TEST_CASE("colors within the gamut stay as they are", "[core][color]") {
  PlaneBuffer planes;
  const std::vector<Triple> colors{{0, 0, 0}, {255, 255, 255}, {12.25, 200, 255}, {255, 0, 0}};
  for (std::size_t i = 0; i < colors.size(); ++i)
    for (std::size_t c = 0; c < 3; ++c) planes.plane(c)[i] = static_cast<float>(colors[i][c]);
  GamutMap(spaces::kSrgb).run(planes.planes(), colors.size());
  for (std::size_t i = 0; i < colors.size(); ++i)
    for (std::size_t c = 0; c < 3; ++c)
      CHECK(planes.plane(c)[i] == static_cast<float>(colors[i][c]));
}

TEST_CASE("known colors are mapped as unknown ones are, but for rounding", "[core][color]") {
  const std::uint32_t channels = GENERATE(3u, 4u);
  PictureInfo info, out;
  info.shape = {1000, 1000, channels, SampleType::kU8};
  if (channels == 4) info.alpha = AlphaKind::kStraight;
  info.space = &spaces::kRec2020;
  out.shape = {1000, 1000, 3, SampleType::kU8};
  REQUIRE(MappedColors::fits(info, out));
  const Conversion conversion(spaces::kRec2020, spaces::kSrgb);
  MappedColors known;
  GamutMap remembering(spaces::kSrgb, &known), other_thread(spaces::kSrgb, &known);
  GamutMap plain(spaces::kSrgb);
  BlockReader reader(info, count_all());
  BlockWriter writer(out);
  for (unsigned round = 0; round < 4; ++round) {
    constexpr std::size_t kPixels = 1000;
    auto codes = random_bytes(channels * kPixels, round);
    for (auto& code : codes) code = static_cast<std::uint8_t>(code / 32 * 36);  // they come again
    const auto stored = bytes_of(codes);
    const Block& block = reader.read(stored.data(), 0, kPixels);
    const auto written = [&](const auto& map) {
      PlaneBuffer planes;
      conversion.run(block.color, planes.planes(), kPixels);
      map(planes.planes());
      std::vector<std::byte> bytes(3 * kPixels);
      writer.write(read_only(planes.planes()), nullptr, kPixels, bytes.data());
      return bytes;
    };
    const auto asked = written([&](const Planes& rgb) { plain.run(rgb, kPixels); });
    const auto found = written([&](const Planes& rgb) {
      (round % 2 == 0 ? remembering : other_thread).run(block, channels, rgb);
    });
    CHECK(found == asked);
    CHECK(found != written([](const Planes&) {}));  // some lie outside
  }
}

TEST_CASE("mapped colors are noted from 8 bits to 8 bits", "[core][color]") {
  PictureInfo from, to;
  from.shape = to.shape = {1000, 1000, 3, SampleType::kU8};
  CHECK(MappedColors::fits(from, to));
  PictureInfo other = to;
  other.shape.sample = SampleType::kU16;
  CHECK_FALSE(MappedColors::fits(from, other));
  CHECK_FALSE(MappedColors::fits(other, to));
  other = from;
  other.shape.height = 100;
  CHECK_FALSE(MappedColors::fits(other, to));
  MappedColors colors;
  CHECK_FALSE(colors.find(77));
  colors.note(77, {0, 255, 3});
  CHECK(colors.find(77) == std::array<std::uint8_t, 3>{0, 255, 3});
  colors.note(78, {0, 0, 0});
  CHECK(colors.find(78) == std::array<std::uint8_t, 3>{0, 0, 0});
}

TEST_CASE("channels are put in order, alpha stays last", "[core][pixel]") {
  const RasterShape shape{2, 1, 4, SampleType::kU16};
  const std::vector<std::uint16_t> bgra{1, 2, 3, 4, 5, 6, 7, 8};
  ReorderedRows rows(std::make_unique<MemorySource>(shape, bytes_of(bgra)), {2, 1, 0});
  std::vector<std::uint16_t> out(8);
  rows.read_rows(1, reinterpret_cast<std::byte*>(out.data()));
  CHECK(out == std::vector<std::uint16_t>{3, 2, 1, 4, 7, 6, 5, 8});
}
