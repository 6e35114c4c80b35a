#include "core/natural_order.h"

#include <catch2/catch.hpp>

using namespace chalcedony;

TEST_CASE("numbers in names are ordered by value", "[core]") {
  CHECK(comes_before("pane-9", "pane-10"));
  CHECK_FALSE(comes_before("pane-10", "pane-9"));
  CHECK(comes_before("a2b1", "a2b3"));
  CHECK(comes_before("a", "b"));
  CHECK(comes_before("a", "a1"));
  CHECK(comes_before("pane-007", "pane-8"));
  CHECK(comes_before("pane-07", "pane-7"));
  CHECK_FALSE(comes_before("pane-7", "pane-07"));
  CHECK_FALSE(comes_before("same", "same"));
  CHECK(comes_before("12345678901234567890", "12345678901234567891"));
}
