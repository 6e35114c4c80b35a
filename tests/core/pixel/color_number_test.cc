// Numbers of colors, held against their bits one by one.
#include "core/pixel/color_number.h"

#include <catch2/catch.hpp>
#include <vector>

#include "tests/support/instruction_sets.h"
#include "tests/support/pictures.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

/// Bit by bit: the lowest of blue, of green, of red, then the next ones.
std::uint32_t plain_number(unsigned r, unsigned g, unsigned b) {
  std::uint32_t number = 0;
  for (unsigned bit = 0; bit < 8; ++bit)
    number |= (b >> bit & 1u) << (3 * bit) | (g >> bit & 1u) << (3 * bit + 1) |
              (r >> bit & 1u) << (3 * bit + 2);
  return number;
}

}  // namespace

TEST_CASE("a color's number has the bits of r, g and b in turn", "[core][pixel]") {
  const auto number_of = [](std::uint8_t r, std::uint8_t g, std::uint8_t b) {
    const std::array<std::byte, 3> rgb{std::byte{r}, std::byte{g}, std::byte{b}};
    return color_number(rgb.data());
  };
  CHECK(number_of(0, 0, 1) == 1);
  CHECK(number_of(1, 2, 3) == 0b011101);
  CHECK(number_of(255, 255, 255) == kColorNumbers - 1);
  const std::byte gray{200};
  CHECK(color_number(&gray, 1) == number_of(200, 200, 200));
}

TEST_CASE("every number is that of its color", "[core][pixel]") {
  std::size_t wrong = 0;
  for (std::uint32_t number = 0; number < kColorNumbers; ++number)
    wrong += color_number(color_of_number(number).data()) == number ? 0 : 1;
  CHECK(wrong == 0);
}

TEST_CASE("colors are numbered in vectors as one by one", "[core][pixel]") {
  for (const std::uint32_t channels : {1u, 2u, 3u, 4u}) {
    for (const std::size_t n : {0u, 1u, 31u, 32u, 33u, 1000u}) {
      const auto stored = random_bytes(n * channels);
      std::vector<std::uint32_t> plain(n);
      for (std::size_t i = 0; i < n; ++i) {
        const std::uint8_t* const pixel = stored.data() + i * channels;
        plain[i] = channels < 3 ? plain_number(pixel[0], pixel[0], pixel[0])
                                : plain_number(pixel[0], pixel[1], pixel[2]);
      }
      for_each_instruction_set([&](const char* name) {
        INFO(channels << " channels, " << n << " pixels, " << name);
        // One more, to see that nothing is written behind the last.
        std::vector<std::uint32_t> numbers(n + 1, 42);
        color_numbers(bytes_of(stored).data(), channels, n, numbers.data());
        CHECK(numbers.back() == 42);
        numbers.pop_back();
        CHECK(numbers == plain);
      });
    }
  }
}
