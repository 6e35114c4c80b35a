#include "core/pixel/flags.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <vector>

#include "core/pixel/uncounted.h"

using namespace chalcedony;

namespace {

// Of a length that no vector divides.
constexpr std::size_t kFlags = 77;

std::vector<std::uint8_t> every(std::size_t step) {
  std::vector<std::uint8_t> flags(kFlags);
  for (std::size_t i = 0; i < kFlags; i += step) flags[i] = 1;
  return flags;
}

Block block_of(const std::vector<std::uint8_t>& counted) {
  Block block;
  block.size = kFlags;
  block.counted = counted.empty() ? nullptr : counted.data();
  return block;
}

}  // namespace

TEST_CASE("flags are counted, turned and written", "[core][pixel]") {
  std::vector<std::uint8_t> flags = every(3);
  CHECK(count_flags(flags.data(), kFlags) == 26);
  CHECK(count_flags(block_of({}), flags.data()) == 26);
  const auto counted = every(2);
  CHECK(count_flags(block_of(counted), flags.data()) == 13);  // every sixth

  std::vector<std::byte> stored(kFlags + 1, std::byte{7});
  store_flags(flags.data(), kFlags, stored.data());
  std::vector<float> gray(kFlags);
  flags_as_gray(flags.data(), kFlags, gray.data());
  for (std::size_t i = 0; i < kFlags; ++i) {
    CHECK(std::to_integer<int>(stored[i]) == (i % 3 == 0 ? 255 : 0));
    CHECK(gray[i] == (i % 3 == 0 ? 255.0f : 0.0f));
  }
  CHECK(stored[kFlags] == std::byte{7});  // nothing beyond

  turn_flags(flags.data(), kFlags);
  CHECK(count_flags(flags.data(), kFlags) == kFlags - 26);
  CHECK(flags[0] == 0);
}

TEST_CASE("flags say which pixels count", "[core][pixel]") {
  std::vector<std::uint8_t> flags(kFlags, 9);
  copy_counted(block_of({}), flags.data());
  CHECK(std::count(flags.begin(), flags.end(), 1) == kFlags);
  const auto counted = every(4);
  copy_counted(block_of(counted), flags.data());
  CHECK(flags == counted);
}

TEST_CASE("pixels that do not count lose what they have", "[core][pixel]") {
  const auto counted = every(2);
  const Block some = block_of(counted), all = block_of({});
  std::vector<std::uint8_t> numbers(kFlags, 250);
  std::vector<Label> labels(kFlags, 60000);
  std::vector<float> values(kFlags, std::numeric_limits<float>::infinity());
  const std::vector<float> gray(kFlags, 100);
  PlaneBuffer faded;
  clear_uncounted(all, numbers.data());
  clear_uncounted(all, labels.data());
  fill_uncounted(all, 3, values.data());
  CHECK(std::count(numbers.begin(), numbers.end(), 250) == kFlags);
  CHECK(std::count(labels.begin(), labels.end(), 60000) == kFlags);
  CHECK(std::count(values.begin(), values.end(), 3.0f) == 0);

  clear_uncounted(some, numbers.data());
  clear_uncounted(some, labels.data());
  fill_uncounted(some, 3, values.data());
  fade_uncounted(some, {gray.data(), gray.data(), gray.data()}, faded.planes());
  for (std::size_t i = 0; i < kFlags; ++i) {
    const bool counts = i % 2 == 0;
    CHECK(numbers[i] == (counts ? 250 : 0));
    CHECK(labels[i] == (counts ? 60000 : 0));
    CHECK(std::isinf(values[i]) == counts);
    CHECK(faded.plane(2)[i] == (counts ? 100.0f : 216.25f));  // a quarter of the way from white
  }
  fade_uncounted(all, {gray.data(), gray.data(), gray.data()}, faded.planes());
  CHECK(std::equal(gray.begin(), gray.end(), faded.plane(0)));
}
