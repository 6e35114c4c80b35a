// The page of a report: what is in it, and how it behaves in a browser.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cstdio>
#include <nlohmann/json.hpp>
#include <regex>
#include <string>

#include "tests/support/browser.h"
#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

/// Three pictures, a model, their maps and a recipe's results in a folder below.
void make_results(const TempDir& dir) {
  for (const char* name : {"a.png", "b.png", "c <2>.png"}) write_stripes(dir / name);
  const std::vector<std::vector<std::string>> commands{
      {"train", "a.png", "--sample", "red=0,0,8,4", "--sample", "blue=9,0,4,4", "-o", "out",
       "--figures", "svg"},
      {"classify", "a.png", "b.png", "c <2>.png", "--model", "out/model.json", "-o", "out",
       "--figures", "png"},
      {"mask", "a.png", "--where", "srgb.r > 100 and srgb.b < 90", "-o", "out/below", "--figures",
       "none"},
      {"measure", "out/below/a.mask.png", "-o", "out/below", "--figures", "none"}};
  for (const auto& command : commands) {
    const Outcome run = run_tool(dir, command);
    INFO(run.err);
    REQUIRE(run.exit_code == 0);
  }
}

std::size_t count_of(const std::string& text, const std::string& part) {
  std::size_t count = 0;
  for (std::size_t at = text.find(part); at != std::string::npos; at = text.find(part, at + 1))
    ++count;
  return count;
}

/// The report of a command on a red picture and one that is blue for three quarters.
std::string page_of_two(const TempDir& dir, const std::string& command) {
  write_rgb(dir / "a.png", 2, 1, {255, 0, 0, 255, 0, 0});
  write_rgb(dir / "b.png", 4, 1, {255, 0, 0, 0, 0, 255, 0, 0, 255, 0, 0, 255});
  run_tool(dir, words_of(command + " -o out"));
  run_tool(dir, {"report", "out"});
  return text_of_file(dir / "out/report.html");
}

}  // namespace

TEST_CASE("a report tells what was run, and shows pictures, tables and areas", "[cli][report]") {
  const TempDir dir;
  make_results(dir);
  const json summary =
      summary_of(run_tool(dir, {"report", "out", "--title", "Panes & more", "--summary", "json"}));
  CHECK(summary["runs"] == 4);
  CHECK(summary["pictures"] == 3);
  CHECK(summary["outputs"] == json{"out/report.html"});
  const std::string page = text_of_file(dir / "out/report.html");
  CHECK_THAT(page, Catch::Contains("<title>Panes &amp; more</title>"));
  CHECK_THAT(page, Catch::Contains("chalcedony classify a.png b.png &quot;c &lt;2&gt;.png&quot; "
                                   "--figures png --model out/model.json -o out</code>"));
  CHECK_THAT(page, Catch::Contains("<a href=\"below/a.mask.png\">a.mask.png</a>"));
  for (const auto& row : rows_of(dir / "out/b.areas.csv"))
    if (row.at("index") != "0") {
      char share[40];
      std::snprintf(share, sizeof share, "%s %.1f percent", row.at("class").c_str(),
                    std::stod(row.at("share_percent")));
      const std::size_t at = page.find("aria-label=\"b.png: ");
      REQUIRE(at != std::string::npos);
      CHECK_THAT(page.substr(at, page.find('>', at) - at), Catch::Contains(share));
    }
  // Of each picture: itself, its map and the figure; of a its mask and cut-out too; the samples.
  CHECK(summary["images"] == count_of(page, "<img "));
  CHECK(summary["images"] >= 3 * 3 + 2 + 1);
  CHECK(count_of(page, "alt=\"class map of ") == 3);
  CHECK(count_of(page, "alt=\"mask of a.png, made by mask\"") == 1);
  // The joined table of areas stands for those of the pictures.
  CHECK(count_of(page, "<h3>areas.csv</h3>") == 1);
  CHECK(count_of(page, "a.areas.csv</h3>") == 0);
  CHECK(count_of(page, "<h3>below/a.mask.regions.csv</h3>") == 1);
  // Nothing is fetched, and every file that is linked is there.
  CHECK(count_of(page, "http") == 0);
  const std::regex link("href=\"([^#\"][^\"]*)\"");
  for (auto at = std::sregex_iterator(page.begin(), page.end(), link); at != std::sregex_iterator();
       ++at) {
    std::string file = (*at)[1];
    if (file == "data:,") continue;
    file = std::regex_replace(std::regex_replace(file, std::regex("&lt;"), "<"), std::regex("&gt;"),
                              ">");
    INFO(file);
    CHECK(std::filesystem::exists(dir / ("out/" + file)));
  }
}

TEST_CASE("a report shows the shares of groups", "[cli][report]") {
  const TempDir dir;
  const std::string page = page_of_two(dir, "cluster a.png b.png --k 2");
  CHECK(count_of(page, "Shares of the groups</h") == 1);
  CHECK(count_of(page, "Shares of the classes") == 0);
  CHECK_THAT(page, Catch::Contains("group 2 75.0 percent"));
  CHECK(count_of(page, "<h3>clusters.csv</h3>") == 1);
  CHECK(count_of(page, "<h3>b.clusters.csv</h3>") == 0);
}

TEST_CASE("a report shows pictures that were mapped after others, and slices beside classes",
          "[cli][report]") {
  const TempDir dir;
  make_results(dir);
  write_stripes(dir / "later.png");
  for (const char* command :
       {"classify later.png --model out/model.json -o out --figures none",
        "slice a.png b.png --channel lab.l --cuts 0,40,100 -o out --figures none",
        "slice later.png --channel lab.l --cuts 0,40,100 -o out --figures none"})
    REQUIRE(run_tool(dir, words_of(command)).exit_code == 0);
  REQUIRE(run_tool(dir, {"report", "out"}).exit_code == 0);
  const std::string page = text_of_file(dir / "out/report.html");
  CHECK(count_of(page, "Shares of the classes</h") == 1);
  CHECK(count_of(page, "Shares of the slices</h") == 1);
  // A bar of each of its two maps.
  CHECK(count_of(page, "aria-label=\"later.png: ") == 2);
  CHECK(count_of(page, "aria-label=\"b.png: ") == 2);
  CHECK(count_of(page, "<h3>later.areas.csv</h3>") == 1);
  CHECK(count_of(page, "<h3>a.areas.csv</h3>") == 0);
  CHECK(count_of(page, "<h3>slices.csv</h3>") == 1);
}

TEST_CASE("a report says what figures of regions show", "[cli][report]") {
  const TempDir dir;
  for (const char* name : {"a.png", "b.png"})
    write_labels(dir / name, 4, {1, 0, 2, 2, 0, 0, 0, 0, 1, 1, 0, 2},
                 {{1, "red", "#d02020"}, {2, "blue", "#2030d0"}});
  REQUIRE(run_tool(dir, words_of("measure a.png b.png --parts -o out")).exit_code == 0);
  REQUIRE(run_tool(dir, {"report", "out"}).exit_code == 0);
  const std::string page = text_of_file(dir / "out/report.html");
  for (const char* what :
       {"sizes of regions, figure of a.png", "sizes of regions, figure",
        "regions counted in parts, figure of b.png", "numbers of regions, figure"})
    CHECK_THAT(page, Catch::Contains("alt=\"" + std::string(what) + ", made by measure\""));
}

TEST_CASE("a report shows how much is selected", "[cli][report]") {
  const TempDir dir;
  const std::string page = page_of_two(dir, "mask a.png b.png --where srgb.b>9");
  CHECK(count_of(page, "Shares selected</h") == 1);
  CHECK_THAT(page, Catch::Contains("selected 75.0 percent"));
  CHECK(count_of(page, "<h3>coverage.csv</h3>") == 1);
  CHECK(count_of(page, "<h3>b.coverage.csv</h3>") == 0);
}

TEST_CASE("a report shows as much as is asked for, and says what it leaves out", "[cli][report]") {
  const TempDir dir;
  make_results(dir);
  CHECK(run_tool(dir, {"report", "out", "-o", "page.html", "--pictures", "1", "--rows", "2"})
            .exit_code == 0);
  const std::string page = text_of_file(dir / "page.html");
  CHECK_THAT(page, Catch::Contains("The first 1 pictures; 2 more are in the tables"));
  CHECK_THAT(page, Catch::Contains("The first 2 of 9 rows; all are in the file."));
  CHECK(count_of(page, "alt=\"class map of ") == 1);
  CHECK_THAT(page, Catch::Contains("href=\"out/areas.csv\""));
}

TEST_CASE("what was made of a map stands with the map", "[cli][report]") {
  const TempDir dir;
  for (const char* name : {"a.classes.png", "b.classes.png", "a.truth.png", "b.truth.png"})
    write_labels(dir / name, 2, {1, 1, 2, 2}, {{1, "red", "#d02020"}, {2, "blue", "#2030d0"}});
  for (const auto& command :
       {"assess a.classes.png b.classes.png --reference *.truth.png --versus *.truth.png -o out",
        "report out"}) {
    const Outcome run = run_tool(dir, words_of(command));
    INFO(run.err);
    REQUIRE(run.exit_code == 0);
  }
  const std::string page = text_of_file(dir / "out/report.html");
  CHECK_THAT(page, Catch::Contains("errors of a.classes.png, made by assess"));
  CHECK_THAT(page, Catch::Contains("errors of b.classes.png, made by assess"));
  CHECK_THAT(page, Catch::Contains("comparison with other maps of b.classes.png, made by assess"));
  CHECK_THAT(page, Catch::Contains("All pictures together"));
}

TEST_CASE("a report takes a picture that is called as a table is", "[cli][report]") {
  const TempDir dir;
  for (const char* name : {"a.png", "areas.png"}) write_stripes(dir / name);
  REQUIRE(run_tool(dir, {"train", "a.png", "--sample", "red=0,0,8,4", "--sample", "blue=9,0,4,4",
                         "-o", "out", "--figures", "none"})
              .exit_code == 0);
  REQUIRE(run_tool(dir, {"classify", "a.png", "areas.png", "--model", "out/model.json", "-o", "out",
                         "--figures", "none"})
              .exit_code == 0);
  const Outcome run = run_tool(dir, {"report", "out"});
  INFO(run.err);
  CHECK(run.exit_code == 0);
  const std::string page = text_of_file(dir / "out/report.html");
  CHECK_THAT(page, Catch::Contains("areas.csv"));
  // Rows are sought in tables that are longer than one sees at once.
  CHECK_THAT(page, Catch::Contains("<table") && !Catch::Contains("type=\"search\""));
}

TEST_CASE("bins are drawn in a report, and intervals are told", "[cli][report]") {
  const TempDir dir;
  write_stripes(dir / "a.png");
  put_text(dir / "a.samples.geojson",
           R"({"type":"FeatureCollection","features":[{"type":"Feature","properties":)"
           R"({"class":"one"},"geometry":{"type":"Point","coordinates":[2.5,2.5]}},)"
           R"({"type":"Feature","properties":{"class":"two"},"geometry":{"type":"Point",)"
           R"("coordinates":[10.5,2.5]}}]})");
  REQUIRE(
      run_tool(dir, {"apart", "a.png", "--classes", "a.samples.geojson", "-o", "out"}).exit_code ==
      0);
  REQUIRE(run_tool(dir, {"report", "out"}).exit_code == 0);
  const std::string page = text_of_file(dir / "out/report.html");
  CHECK_THAT(page, Catch::Contains("<h3>a.intervals.csv") &&
                       Catch::Contains("classes in each channel, figure") &&
                       !Catch::Contains("<h3>a.class-histogram.csv"));
}

TEST_CASE("a report of what is no results folder is refused", "[cli][report]") {
  const TempDir dir;
  write_stripes(dir / "a.png");
  check_error(run_tool(dir, {"report", "."}), 1, "holds no how.json");
  check_error(run_tool(dir, {"report", "nowhere"}), 1, "nowhere: holds no how.json");
  check_error(run_tool(dir, {"report"}), 2, "report takes one folder");
  check_error(run_tool(dir, {"report", ".", "-o", "page.pdf"}), 2,
              "--output: 'page.pdf' is no page; end it in .html");
  CHECK_FALSE(std::filesystem::exists(dir / "report.html"));
  CHECK(run_tool(dir, {"inspect", "a.png", "-o", "out"}).exit_code == 0);
  check_error(run_tool(dir, {"report", "out", "-o", "pages/a.html"}), 1,
              "pages/a.html: cannot be written, its folder is not there; make the folder");
  CHECK_FALSE(std::filesystem::exists(dir / "pages"));
}

TEST_CASE("the page of a report works in a browser", "[cli][report][browser]") {
  if (lacks_browser()) return;
  const TempDir dir;
  make_results(dir);
  REQUIRE(run_tool(dir, {"report", "out"}).exit_code == 0);
  // What a reader does, done by a script at the end of a copy of the page.
  const std::string checks = R"(
found.images = document.images.length;
found.broken = [...document.images].filter(i => !i.complete || i.naturalWidth === 0).length;
found.silent = [...document.images].filter(i => !i.alt).length;
found.headings = [...document.querySelectorAll("table")].filter(
    t => [...t.tHead.rows[0].cells].some(c => c.scope !== "col")).length;
const controls = [...document.querySelectorAll("a[href], button, input, summary, [role=region]")];
found.controls = controls.length;
found.unreachable = controls.filter(c => c.tabIndex < 0).length;
found.unlabelled = [...document.querySelectorAll("input")].filter(i => !i.labels.length).length;
const title = [...document.querySelectorAll("h3")].find(h => h.textContent === "areas.csv");
const table = title.parentElement.querySelector("#" + title.nextElementSibling.querySelector("input").dataset.table);
const column = name => [...table.tHead.rows[0].cells].findIndex(c => c.textContent === name);
const column_of = name => [...table.tBodies[0].rows].map(r => r.cells[column(name)].textContent);
const press = name => table.tHead.rows[0].cells[column(name)].querySelector("button").click();
press("pixels");
found.rising = column_of("pixels");
found.sorted = table.tHead.rows[0].cells[column("pixels")].getAttribute("aria-sort");
press("pixels");
found.falling = column_of("pixels");
const filter = title.nextElementSibling.querySelector("input");
filter.value = "BLUE"; filter.dispatchEvent(new Event("input"));
found.kept = [...table.tBodies[0].rows].filter(r => !r.hidden).length;
found.said = title.nextElementSibling.querySelector("[role=status]").textContent;
)";
  for (const char* size : {"1280,800", "390,800"}) {
    const json found = found_on_page(dir, dir / "out/report.html", checks, size);
    INFO(found.dump(1));
    CHECK(found["images"] > 10);
    CHECK(found["broken"] == 0);
    CHECK(found["silent"] == 0);
    CHECK(found["headings"] == 0);
    CHECK(found["controls"] > 20);
    CHECK(found["unreachable"] == 0);
    CHECK(found["unlabelled"] == 0);
    const auto number = [](const json& text) { return std::stoi(text.get<std::string>()); };
    std::vector<int> rising, falling;
    for (const json& text : found["rising"]) rising.push_back(number(text));
    for (const json& text : found["falling"]) falling.push_back(number(text));
    CHECK(rising.size() == 9);
    CHECK(std::is_sorted(rising.begin(), rising.end()));
    CHECK(std::is_sorted(falling.rbegin(), falling.rend()));
    CHECK(rising.front() < rising.back());
    CHECK(found["sorted"] == "ascending");
    CHECK(found["kept"] == 3);
    CHECK(found["said"] == "3 of 9 rows");
    CHECK(found["wider"] == 0);
  }
}
