// Texts that are numbers, and texts that are not.
#include <catch2/catch.hpp>
#include <cstdint>
#include <limits>
#include <string>

#include "core/read_number.h"

using namespace chalcedony;

TEST_CASE("a text is read as a number when it is one from end to end", "[core]") {
  CHECK(read_number<double>("12.5") == 12.5);
  CHECK(read_number<double>("-2e1") == -20);
  CHECK(read_number<std::uint64_t>("18446744073709551615") ==
        std::numeric_limits<std::uint64_t>::max());
  CHECK(read_number<float>(std::string_view("x0.25y").substr(1, 4)) == 0.25f);
  for (const char* text : {"", " 1", "1 ", "1,5", "1.5mm", "+1", "0x10", "one", "1e999"}) {
    INFO(text);
    CHECK_FALSE(read_number<double>(text));
  }
  for (const char* text : {"", "-1", "1.0", "18446744073709551616"}) {
    INFO(text);
    CHECK_FALSE(read_number<std::uint64_t>(text));
  }
}
