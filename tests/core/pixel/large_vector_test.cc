#include "core/pixel/large_vector.h"

#include <catch2/catch.hpp>
#include <cstdint>
#include <numeric>
#include <utility>

namespace chalcedony {

TEST_CASE("numbers stay when a vector grows into large pages", "[large_vector]") {
  LargeVector<double> numbers;
  for (int i = 0; i < 1'000'000; ++i) numbers.push_back(i);
  std::size_t wrong = 0;
  for (std::size_t i = 0; i < numbers.size(); ++i)
    wrong += numbers[i] == static_cast<double>(i) ? 0 : 1;
  CHECK(wrong == 0);
}

TEST_CASE("large vectors are copied, moved and given up like others", "[large_vector]") {
  // Whole large pages, and a part of one more.
  for (const std::size_t size : {std::size_t{2} << 20, (std::size_t{4} << 20) + 5}) {
    LargeVector<std::uint8_t> numbers(size);
    std::iota(numbers.begin(), numbers.end(), std::uint8_t{0});
    LargeVector<std::uint8_t> copy = numbers;
    const LargeVector<std::uint8_t> moved = std::move(numbers);
    CHECK(copy == moved);
    copy.resize(10);
    copy.shrink_to_fit();
    CHECK(copy == LargeVector<std::uint8_t>{0, 1, 2, 3, 4, 5, 6, 7, 8, 9});
  }
}

}  // namespace chalcedony
