// The page of a report as text: what is escaped, labelled and left out.
#include "job/report/report_page.h"

#include <catch2/catch.hpp>

using namespace chalcedony;

namespace {

ReportContent content() {
  ReportContent content;
  content.title = "A <b> & \"c\"";
  content.facts = "2 runs";
  content.runs = {{"chalcedony mask a.png --where \"gray > 3\"", "1 file read", {{"a&b", "a%b"}}}};
  return content;
}

bool holds(const std::string& page, const std::string& part) {
  return page.find(part) != std::string::npos;
}

}  // namespace

TEST_CASE("texts of others cannot become markup", "[job][report]") {
  ReportContent all = content();
  all.groups = {{"<script>", {{"data:,", "alt \"x\"", "<i>", false}}}};
  all.tables = {{"t<1>", {"a<b"}, {{"<td>"}, {"\"q\" & r"}}, 2}};
  all.areas = {{"s<", {{"p\">", {{"n<", "red\"", 40}}}}}};
  const std::string page = report_page(all);
  CHECK(holds(page, "<h1>A &lt;b&gt; &amp; &quot;c&quot;</h1>"));
  CHECK(holds(page, "--where &quot;gray &gt; 3&quot;</code>"));
  CHECK(holds(page, "<h3>&lt;script&gt;</h3>"));
  CHECK(holds(page, "alt=\"alt &quot;x&quot;\""));
  CHECK(holds(page, "<button type=\"button\">a&lt;b</button>"));
  CHECK(holds(page, "<td>&lt;td&gt;</td>"));
  CHECK(holds(page, "aria-label=\"p&quot;&gt;: n&lt; 40.0 percent\""));
  CHECK_FALSE(holds(page, "red\"\""));
}

TEST_CASE("parts without content are not there", "[job][report]") {
  const std::string page = report_page(content());
  for (const char* part : {"id=\"areas\"", "id=\"pictures\"", "id=\"tables\"", "href=\"#areas\""})
    CHECK_FALSE(holds(page, part));
  CHECK(holds(page, "id=\"runs\""));
  CHECK(holds(page, "<li><a href=\"a%b\">a&amp;b</a></li>"));
}

TEST_CASE("numbers are set to the right and cut, colors get a swatch", "[job][report]") {
  ReportContent all = content();
  all.tables = {{"t",
                 {"name", "value", "color"},
                 {{"a", "0.123456789", "#ff0000"}, {"b", "", "#00ff00"}, {"c", "12345678", ""}},
                 900}};
  const std::string page = report_page(all);
  CHECK(holds(page, "<td class=\"number\">0.1235</td>"));
  CHECK(holds(page, "<td class=\"number\">12345678</td>"));
  CHECK(holds(page, "<td class=\"number\"></td>"));
  CHECK(holds(page, "<th scope=\"col\" class=\"number\"><button type=\"button\">value</button>"));
  CHECK(holds(page, "<td><i style=\"background:#ff0000\"></i>#ff0000</td>"));
  CHECK(holds(page, "The first 3 of 900 rows; all are in the file."));
}

TEST_CASE("classes without a pixel are in no legend", "[job][report]") {
  ReportContent all = content();
  all.areas = {{"shares",
                {{"a.png", {{"unclassified", "", 0}, {"ruby", "#a00000", 100}}},
                 {"b.png", {{"unclassified", "", 0}, {"lead", "#303030", 25}}}}}};
  const std::string page = report_page(all);
  CHECK_FALSE(holds(page, "unclassified"));
  CHECK(holds(page, "</i>ruby</li>"));
  CHECK(holds(page, "</i>lead</li>"));
  // A class that a picture does not have is an empty field of its row.
  CHECK(holds(page, "<td>b.png</td><td class=\"number\"></td><td class=\"number\">25.00</td>"));
}
