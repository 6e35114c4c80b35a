#include "io/text/printable_text.h"

#include <catch2/catch.hpp>
#include <string>

using chalcedony::printable;

TEST_CASE("text in UTF-8 is shown as it is", "[io]") {
  for (const std::string text : {"", "pane 1.png", "fen\u00eatre \u00a0 \u7a93 \U0001f600"}) {
    CHECK(printable(text) == text);
  }
}

TEST_CASE("control characters are shown, not obeyed", "[io]") {
  CHECK(printable("a\x1b[31mb\x7f\tc") == "a\\x1b[31mb\\x7f\\x09c");
  CHECK(printable(std::string("a\0b", 3)) == "a\\x00b");
  CHECK(printable("\xc2\x9b"
                  "31m") == "\\xc2\\x9b31m");  // C1, which some terminals obey
  CHECK(printable("two\nlines") == "two\\x0alines");
}

TEST_CASE("bytes that are no UTF-8 are shown one by one", "[io]") {
  CHECK(printable("fen\xeatre") == "fen\\xeatre");           // Latin-1
  CHECK(printable("cut \xe7\xaa") == "cut \\xe7\\xaa");      // broken off
  CHECK(printable("\xc0\xaf") == "\\xc0\\xaf");              // longer than need be
  CHECK(printable("\xed\xa0\x80") == "\\xed\\xa0\\x80");     // half of a pair of UTF-16
  CHECK(printable("\xe7\xaa\u7a93") == "\\xe7\\xaa\u7a93");  // what follows stays whole
}
