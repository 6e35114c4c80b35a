// Runs over many pictures at the built program: side by side, what becomes of each, and what they
// write of all together.
#include <algorithm>
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>
#include <string>

#include "tests/support/outcome.h"
#include "tests/support/panes.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

TEST_CASE("pictures worked on side by side give the bytes of one after the other", "[cli][many]") {
  const TempDir dir;
  write_panes(dir, true);
  for (const char* threads : {"1", "2", "5"}) {
    const std::string folder = std::string("t") + threads;
    CHECK(run_tool(dir, with(kCountPanes, {"--threads", threads, "-o", folder})).exit_code == 1);
    CHECK(run_tool(dir, {"convert", "panes", "--recursive", "--to", "oklab", "-o", folder + "-c",
                         "--threads", threads})
              .exit_code == 1);
  }
  const auto one = contents_of(dir / "t1"), converted = contents_of(dir / "t1-c");
  CHECK(one.count("north/pane-8.joint.csv") == 1);
  CHECK(converted.count("north/pane-8.oklab.tif") == 1);
  for (const char* threads : {"2", "5"}) {
    CHECK(contents_of(dir / (std::string("t") + threads)) == one);
    CHECK(contents_of(dir / (std::string("t") + threads + "-c")) == converted);
  }
}

TEST_CASE("the tables of all pictures are joined, each row with its picture", "[cli][many]") {
  const TempDir dir;
  write_panes(dir);
  const json done = summary_of(run_tool(dir, with(kCountPanes, {"-o", "out"})));
  const auto all = rows_of(dir / "out/histogram.csv");
  const auto first = rows_of(dir / "out/pane-1.histogram.csv");
  REQUIRE(all.size() == 9 * first.size());
  for (std::size_t r = 0; r < first.size(); ++r) {
    auto row = all[r];
    CHECK(row.at("picture") == "panes/pane-1.png");
    row.erase("picture");
    CHECK(row == first[r]);
  }
  CHECK(all.back().at("picture") == "panes/north/pane-9.png");
  for (const char* table : {"out/joint.csv", "out/peaks.csv"}) {
    CHECK(rows_of(dir / table).size() > 9);
    CHECK(std::count(done["outputs"].begin(), done["outputs"].end(), table) == 1);
  }
}

TEST_CASE("a folder that becomes unwritable costs its own pictures only", "[cli][many]") {
  const TempDir dir;
  write_panes(dir);
  std::filesystem::create_directories(dir / "out");
  put_text(dir / "out/north", "a file where a folder must be");
  const auto run = run_tool(
      dir, {"mask", "panes", "--recursive", "--where", "gray > 9", "-o", "out", "--write", "mask"});
  CHECK(run.exit_code == 1);
  CHECK(std::count(run.err.begin(), run.err.end(), '\n') == 2);
  CHECK_THAT(run.err, Catch::Contains("out/north: the folder cannot be made"));
  CHECK(rows_of(dir / "out/failures.csv").size() == 2);
  CHECK(std::filesystem::exists(dir / "out/pane-7.mask.png"));
  CHECK(text_of_file(dir / "out/north") == "a file where a folder must be");
}

TEST_CASE("names that are no UTF-8 are written down as well as can be", "[cli][many]") {
  const TempDir dir;
  write_panes(dir);
  const std::string name = "panes/fen\xeatre.png";  // Latin-1
  std::filesystem::copy(dir / "panes/pane-1.png", dir / name);
  const Words look{"inspect", name, "panes/pane-2.png", "-o", "out", "--resume"};
  for (int run = 0; run < 2; ++run) {
    const auto done = run_tool(dir, look);
    CHECK(done.exit_code == 0);
    CHECK(done.err.empty());
  }
  const json how = json::parse(text_of_file(dir / "out/how.json"));
  CHECK(how["runs"][0]["operands"][0] == "panes/fen\xef\xbf\xbdtre.png");
  CHECK(std::filesystem::exists(dir / "out/fen\xeatre.statistics.csv"));
}

TEST_CASE("names with control characters are shown, not obeyed", "[cli][many]") {
  const TempDir dir;
  const std::string name = "red\x1b[31m\npane\xea.png", shown = R"(red\x1b[31m\x0apane\xea.png)";
  write_stripes(dir / name);
  const auto drawn =
      run_tool(dir, {"histogram", name, "--channels", "lab.l", "--figures", "svg", "-o", "out"});
  CHECK(drawn.exit_code == 0);
  CHECK(drawn.err.empty());
  CHECK_THAT(drawn.out, Catch::StartsWith(shown + ": 200 pixels counted\n"));
  CHECK(drawn.out.find('\x1b') == std::string::npos);
  CHECK_THAT(text_of_file(dir / "out/red\x1b[31m\npane\xea.histogram.svg"),
             Catch::Contains("Channel histograms of " + shown));
  check_error(run_tool(dir, {"inspect", "no" + name}), 1, "error: no" + shown + ": no such file");
}

TEST_CASE("progress is lines where there is no terminal", "[cli][many]") {
  const TempDir dir;
  write_panes(dir, true);
  const auto run = run_tool(
      dir, {"inspect", "panes", "--progress", "always", "--summary", "json", "--threads", "2"});
  CHECK_THAT(run.err, Catch::Contains("chalcedony: 8 of 8 pictures, 1 failed, "));
  CHECK_THAT(run.err, Catch::Contains(" a second\n"));
  CHECK(run_tool(dir, {"inspect", "panes/pane-1.png", "panes/pane-2.png"}).err.empty());
}

TEST_CASE("the journal says what became of each picture", "[cli][many]") {
  const TempDir dir;
  write_panes(dir, true);
  run_tool(dir, {"inspect", "panes", "-o", "out"});
  const json lines = lines_as_json(dir / "out/inspect.pictures.jsonl");
  REQUIRE(lines.size() == 9);
  CHECK(lines[0]["chalcedony"] == "pictures");
  CHECK(lines[0]["pictures"] == 8);
  CHECK(lines[1]["file"] == "panes/pane-1.png");
  CHECK(lines[1]["outputs"] == json{"{out}/pane-1.statistics.csv"});
  CHECK(lines[1]["summary"]["channels"].size() == 3);
  CHECK(lines[6]["file"] == "panes/pane-5b.png");
  CHECK_THAT(lines[6]["error"].get<std::string>(), Catch::Contains("panes/pane-5b.png: "));
}
