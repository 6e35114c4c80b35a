// What stands in pages.
#include "job/page/html_page.h"

#include <catch2/catch.hpp>
#include <stdexcept>

using namespace chalcedony;

TEST_CASE("the words of a page's body are replaced once", "[page]") {
  CHECK(filled("<p>{{a}} of {{b}}, {{a}}</p>", {{"a", "{{b}}"}, {"b", "2"}}) ==
        "<p>{{b}} of 2, {{b}}</p>");
  CHECK(filled("{{a}}", {{"a", ""}}).empty());
  CHECK(filled("none", {}) == "none");
  CHECK_THROWS_AS(filled("{{c}}", {{"a", ""}}), std::logic_error);
  CHECK_THROWS_AS(filled("{{a", {{"a", ""}}), std::logic_error);
}

TEST_CASE("texts end neither an element nor a script", "[page]") {
  CHECK(escaped_html("a<b> & \"c\"") == "a&lt;b&gt; &amp; &quot;c&quot;");
  CHECK(script_json(R"({"a":"</script>"})") == R"({"a":"\u003c/script>"})");
}
