// Tables of sample pixels against counts made by hand, and what is trimmed.
#include "core/learn/sample_table.h"

#include <catch2/catch.hpp>
#include <map>
#include <random>

using namespace chalcedony;

namespace {

void add(SampleTable& table, std::size_t c, std::vector<float> row, std::uint64_t count = 1) {
  table.add(c, row.data(), count);
}

}  // namespace

TEST_CASE("equal rows are held once, with their pixels", "[core][learn]") {
  SampleTable table(2);
  add(table, 0, {3, 1});
  add(table, 0, {1, 2}, 4);
  add(table, 0, {3, 1}, 2);
  add(table, 2, {3, 1});
  table.join_equal_rows();
  REQUIRE(table.classes() == 3);
  CHECK(table.of(0).values == std::vector<float>{1, 2, 3, 1});
  CHECK(table.of(0).counts == std::vector<std::uint64_t>{4, 3});
  CHECK(table.of(1).rows() == 0);
  CHECK(table.added(0) == 7);
  CHECK(table.rows() == 3);
  CHECK_FALSE(table.drawn());
  const ClassStatistics s = table.statistics(0);
  CHECK(s.count == 7);
  CHECK(s.mean[0] == Approx(13.0 / 7));
  CHECK(s.covariance(0, 0) == Approx((4 * 36.0 / 49 + 3 * 64.0 / 49) / 6));
}

TEST_CASE("tables add up the same in any order", "[core][learn]") {
  std::mt19937 random(3);
  std::uniform_int_distribution<int> value(0, 12);
  SampleTable whole(2), first(2), second(2);
  for (int i = 0; i < 3000; ++i) {
    const std::vector<float> row{static_cast<float>(value(random)),
                                 static_cast<float>(value(random))};
    add(whole, static_cast<std::size_t>(i % 2), row);
    add(i < 1000 ? first : second, static_cast<std::size_t>(i % 2), row);
  }
  SampleTable joined(2);
  joined.add(second, {0, 1});
  joined.add(first, {0, 1});
  whole.join_equal_rows();
  joined.join_equal_rows();
  for (std::size_t c = 0; c < 2; ++c) {
    CHECK(joined.of(c).values == whole.of(c).values);
    CHECK(joined.of(c).counts == whole.of(c).counts);
    CHECK(joined.added(c) == whole.added(c));
  }
  // Class 1 of the other table may be class 0 of ours.
  SampleTable swapped(2);
  swapped.add(whole, {1, 0});
  swapped.join_equal_rows();
  CHECK(swapped.of(0).values == whole.of(1).values);
}

TEST_CASE("of too many rows the same ones stay, however they come", "[core][learn]") {
  constexpr std::size_t kMost = 100;
  SampleTable forward(1, kMost), backward(1, kMost);
  for (int i = 0; i < 5000; ++i) {
    add(forward, 0, {static_cast<float>(i)}, 2);
    add(backward, 0, {static_cast<float>(4999 - i)}, 2);
    if (i % 700 == 0) backward.join_equal_rows();
  }
  forward.join_equal_rows();
  backward.join_equal_rows();
  CHECK(forward.drawn());
  CHECK(forward.rows() == kMost);
  CHECK(forward.of(0).values == backward.of(0).values);
  CHECK(forward.added(0) == 10000);
  CHECK(backward.added(0) == 10000);
  CHECK(forward.of(0).pixels() == 2 * kMost);
}

TEST_CASE("trimming leaves out what lies far from the median", "[core][learn]") {
  SampleTable table(2);
  // Medians 50 and 7; the second feature has no spread and leaves nothing out.
  for (int i = 0; i <= 100; ++i) add(table, 0, {static_cast<float>(i), 7});
  add(table, 0, {400, 7}, 3);
  add(table, 0, {50, 9});
  table.join_equal_rows();
  const SampleTable kept = trimmed(table, 2);
  // 105 pixels: the median is 51, the median absolute deviation 26: 2 x 1.4826 x 26 = 77.1.
  CHECK(kept.of(0).pixels() == 102);
  CHECK(kept.of(0).row(kept.of(0).rows() - 1)[0] == 100);
  const SampleTable all = trimmed(table, 100);
  CHECK(all.of(0).pixels() == 105);
  const SampleTable few = trimmed(table, 0.1);
  CHECK(few.of(0).row(0)[0] == 48);  // 51 - 3.85
}
