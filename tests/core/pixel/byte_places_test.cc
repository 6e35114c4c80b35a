// Bytes looked at eight at a time, held against looking at each.
#include "core/pixel/byte_places.h"

#include <algorithm>
#include <array>
#include <catch2/catch.hpp>
#include <vector>

#include "tests/support/pictures.h"

using namespace chalcedony;
using namespace chalcedony::test;

TEST_CASE("the bytes of a word that are not 0 are found", "[core][pixel]") {
  const auto bytes = random_bytes(8 * 200);
  std::size_t wrong = 0;
  for (std::size_t first = 0; first < bytes.size(); first += kWordBytes) {
    std::array<std::uint8_t, kWordBytes> own;
    for (std::size_t i = 0; i < kWordBytes; ++i)
      own[i] = bytes[first + i] % 3 == 0 ? std::uint8_t{0} : bytes[first + i];
    const std::uint64_t used = used_bytes(word_at(own.data()));
    const auto zeros = static_cast<std::size_t>(std::count(own.begin(), own.end(), 0));
    wrong += count_top_bits(used) == kWordBytes - zeros ? 0 : 1;
    wrong += has_zero(word_at(own.data())) == (zeros > 0) ? 0 : 1;
    for (std::size_t i = 0; i < kWordBytes; ++i)
      wrong += (used >> (8 * i) & 255) == (own[i] != 0 ? 0x80u : 0u) ? 0 : 1;
  }
  CHECK(wrong == 0);
}

TEST_CASE("the places of a byte are listed in order", "[core][pixel]") {
  for (const std::size_t n : {0u, 1u, 7u, 8u, 9u, 500u}) {
    // Some that stay for a while, and others that change.
    auto bytes = random_bytes(n);
    for (std::size_t i = 0; i < n; ++i)
      bytes[i] = static_cast<std::uint8_t>(i < n / 2 ? i / 20 % 4 : bytes[i] % 4);
    for (const std::uint8_t byte : {0, 1, 2, 3, 4}) {
      std::vector<std::uint32_t> plain, places(n);
      for (std::size_t i = 0; i < n; ++i)
        if (bytes[i] == byte) plain.push_back(static_cast<std::uint32_t>(i));
      places.resize(list_places(bytes.data(), n, byte, places.data()));
      INFO(n << " bytes, " << int{byte});
      CHECK(places == plain);
    }
  }
}
