// The channel histograms of all pictures in one figure, whenever and wherever they were counted.
#include <catch2/catch.hpp>
#include <filesystem>
#include <string>

#include "tests/support/outcome.h"
#include "tests/support/panes.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

const Words kWarmth = words_of(
    "histogram panes --recursive --let warmth=lab.a+lab.b --channels warmth,hsv.h --bins 20 --log "
    "--figures svg -q -o");

constexpr const char* kFigure = "histograms.figure.svg";

}  // namespace

TEST_CASE("histograms of all pictures are drawn of shards and after a stop as of one run",
          "[cli][many][histogram]") {
  const TempDir dir;
  write_panes(dir);
  REQUIRE(run_tool(dir, with(kWarmth, {"one"})).exit_code == 0);
  const std::string drawn = text_of_file(dir / "one" / kFigure);
  CHECK_THAT(drawn, Catch::Contains("Channel histograms of 9 pictures") &&
                        Catch::Contains("pane-9.png") && Catch::Contains("logarithmic"));
  for (const char* part : {"1", "2"})
    REQUIRE(
        run_tool(dir, with(kWarmth, {std::string("s") + part, "--shard", std::string(part) + "/2"}))
            .exit_code == 0);
  CHECK_FALSE(dir.files().contains(std::string("s1/") + kFigure));
  REQUIRE(run_tool(dir, {"gather", "s1", "s2", "-o", "all"}).exit_code == 0);
  CHECK(text_of_file(dir / "all" / kFigure) == drawn);
  // A picture that comes later joins those that were counted before.
  std::filesystem::rename(dir / "panes/pane-5.png", dir / "pane-5.png");
  REQUIRE(run_tool(dir, with(kWarmth, {"later"})).exit_code == 0);
  CHECK_THAT(text_of_file(dir / "later" / kFigure),
             Catch::Contains("Channel histograms of 8 pictures"));
  std::filesystem::rename(dir / "pane-5.png", dir / "panes/pane-5.png");
  REQUIRE(run_tool(dir, with(kWarmth, {"later", "--resume"})).exit_code == 0);
  CHECK(text_of_file(dir / "later" / kFigure) == drawn);
  // Without tables too.
  REQUIRE(run_tool(dir, with(kWarmth, {"drawn", "--write", "figure"})).exit_code == 0);
  CHECK(text_of_file(dir / "drawn" / kFigure) == drawn);
}

TEST_CASE("a table that was changed is left out of the figure of all histograms, and told",
          "[cli][many][histogram]") {
  const TempDir dir;
  write_panes(dir);
  REQUIRE(run_tool(dir, with(kWarmth, {"out"})).exit_code == 0);
  std::string table = text_of_file(dir / "out/pane-2.histogram.csv");
  table.replace(table.find("warmth,3,"), 9, "warmth,4,");
  put_text(dir / "out/pane-2.histogram.csv", table);
  Words loud = with(kWarmth, {"out", "--resume"});
  std::erase(loud, "-q");
  const auto run = run_tool(dir, loud);
  CHECK(run.exit_code == 0);
  CHECK_THAT(run.err, Catch::Contains("a picture is left out of the figure of all histograms: ") &&
                          Catch::Contains("is not as it was written, in line 5; make it anew"));
  CHECK_THAT(text_of_file(dir / "out" / kFigure),
             Catch::Contains("Channel histograms of 8 pictures") && !Catch::Contains("pane-2.png"));
}
