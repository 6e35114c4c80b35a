// Inputs that cannot be used, at the commands that make one result of several: they stop at the
// first one, or leave all of them out with --skip-bad.
#include <catch2/catch.hpp>
#include <string>

#include "tests/support/outcome.h"
#include "tests/support/panes.h"
#include "tests/support/pictures.h"
#include "tests/support/png_chunks.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

constexpr const char* kWayOut =
    "bad.png: damaged PNG: end of stream; copy or export the file again, or leave it out with "
    "--skip-bad";

/// Three panels, and one that breaks off after most of its rows.
void write_panels(const TempDir& dir) {
  for (const char* name : {"panel-a.png", "panel-b.png", "panel-c.png", "panel-a.samples.geojson",
                           "panel-b.samples.geojson"})
    copy_demo(dir, name);
  const std::string whole = text_of_file(dir / "panel-c.png");
  put_text(dir / "bad.png", whole.substr(0, whole.size() * 9 / 10));
}

Outcome clusters_of(const TempDir& dir, const std::string& line) {
  return run_tool(
      dir, with(words_of("cluster " + line), {"--k", "4", "--restarts", "2", "--figures", "none"}));
}

}  // namespace

TEST_CASE("one bad input stops a job that makes one result of all", "[cli][many]") {
  const TempDir dir;
  write_panels(dir);
  std::filesystem::create_directories(dir / "out");
  put_text(dir / "out/clusters.model.json", "of an earlier run");
  check_error(clusters_of(dir, "panel-a.png bad.png panel-b.png -o out"), 1, kWayOut);
  CHECK(contents_of(dir / "out") ==
        std::map<std::string, std::string>{{"clusters.model.json", "of an earlier run"}});
  for (const char* line : {"similar panel-a.png bad.png panel-b.png --to panel-c.png -o new",
                           "train panel-a.png bad.png --samples panel-a.samples.geojson --samples "
                           "panel-b.samples.geojson -o new"}) {
    INFO(line);
    const Outcome run = run_tool(dir, words_of(line));
    check_error(run, 1, kWayOut);
    CHECK(run.out.empty());
    check_nothing_in(dir, "new");
  }
  // There is no way out for the only input.
  const Outcome lone = clusters_of(dir, "bad.png -o lone");
  CHECK(lone.err.find("--skip-bad") == std::string::npos);
  check_nothing_in(dir, "lone");
}

TEST_CASE("what is said of several pictures comes in their order", "[cli][many]") {
  const TempDir dir;
  write_panels(dir);
  put_text(dir / "none.png", "this is no picture");
  for (const char* name : {"odd-1.png", "odd-2.png"}) {
    write_stripes(dir / name);
    put_text(dir / name,
             with_chunks(text_of_file(dir / name), {std::string("cICP\x09\x10\x00\x01", 8)}));
  }
  const std::string odd =
      ": its cICP chunk names the colors 9/16 of H.273, which are not known here, and is not "
      "honored; taken as srgb\n";
  for (const char* threads : {"1", "2", "6"}) {
    INFO(threads);
    const Outcome run =
        run_tool(dir, {"histogram", "panel-a.png", "bad.png", "odd-1.png", "none.png", "odd-2.png",
                       "--figures", "none", "-o", "out", "--threads", threads});
    CHECK(run.exit_code == 1);
    CHECK(run.err ==
          "chalcedony: error: bad.png: damaged PNG: end of stream; copy or export the file again\n"
          "chalcedony: warning: odd-1.png" +
              odd +
              "chalcedony: error: none.png: is not a picture this program reads; give a PNG, JPEG, "
              "TIFF or WebP file\n"
              "chalcedony: warning: odd-2.png" +
              odd);
  }
  // What stops the run comes after what was said of it and of those before.
  const Outcome stopped = run_tool(
      dir, {"similar", "odd-1.png", "odd-2.png", "bad.png", "--to", "panel-c.png", "-o", "none"});
  CHECK(stopped.exit_code == 1);
  CHECK_THAT(stopped.err,
             Catch::Contains(kWayOut) && Catch::StartsWith("chalcedony: warning: odd-1.png" + odd +
                                                           "chalcedony: warning: odd-2.png" + odd +
                                                           "chalcedony: error: bad.png"));
}

TEST_CASE("an error in a file that goes with several pictures names the picture", "[cli][many]") {
  const TempDir dir;
  write_stripes(dir / "a.png");
  write_labels(dir / "b.png", 10, std::vector<std::uint8_t>(100, 3), {});
  write_labels(dir / "on.png", 20, std::vector<std::uint8_t>(200, 255), {});
  const std::string wrong_size =
      "on.png: the mask is 20x10, the picture 10x10; give the mask that belongs to this picture";
  const Outcome both =
      run_tool(dir, {"inspect", "a.png", "b.png", "--within", "on.png", "-o", "out"});
  CHECK(both.exit_code == 1);
  CHECK(both.err == "chalcedony: error: b.png: " + wrong_size + "\n");
  CHECK(text_of_file(dir / "out/failures.csv") ==
        "file,error\r\nb.png,\"b.png: " + wrong_size + "\"\r\n");
  check_error(run_tool(dir, {"inspect", "b.png", "--within", "on.png"}), 1, "error: " + wrong_size);
}

TEST_CASE("a mask that several pictures share is warned of once", "[cli][many]") {
  const TempDir dir;
  write_stripes(dir / "a.png");
  write_stripes(dir / "b.png");
  write_labels(dir / "soft.png", 20, std::vector<std::uint8_t>(200, 177), {});
  const Outcome run = run_tool(dir, {"inspect", "a.png", "b.png", "--within", "soft.png"});
  CHECK(run.exit_code == 0);
  CHECK(run.err ==
        "chalcedony: warning: soft.png: holds other values than 0 and 255; 128 and more count as "
        "selected\n");
}

TEST_CASE("bad inputs that are left out leave no mark on the result", "[cli][many]") {
  const TempDir dir;
  write_panels(dir);
  for (const char* threads : {"1", "3"}) {
    const Outcome run = run_tool(
        dir, words_of("cluster panel-a.png bad.png no.png panel-b.png --k 4 --figures none "
                      "--skip-bad --summary json -o skipped --threads " +
                      std::string(threads)));
    CHECK(run.exit_code == 1);
    CHECK(run.err ==
          "chalcedony: error: bad.png: damaged PNG: end of stream; copy or export the file again\n"
          "chalcedony: error: no.png: no such file; check its name and folder\n");
    const json summary = json::parse(run.out);
    CHECK(summary["inputs"].size() == 2);
    CHECK(summary["failed"].size() == 2);
    CHECK(summary["failed"][0]["file"] == "bad.png");
  }
  const auto failures = rows_of(dir / "skipped/failures.csv");
  REQUIRE(failures.size() == 2);
  CHECK(failures[1].at("file") == "no.png");
  CHECK(failures[1].at("error") == "no.png: no such file; check its name and folder");
  CHECK(run_tool(dir, words_of("cluster panel-a.png panel-b.png --k 4 --figures none -o good"))
            .exit_code == 0);
  for (const char* name : {"clusters.model.json", "clusters.csv", "panel-b.clusters.png"})
    CHECK(text_of_file(dir / "skipped" / name) == text_of_file(dir / "good" / name));
  // Where nothing is bad any more, there is no list of what was.
  CHECK(run_tool(dir, words_of("cluster panel-a.png panel-b.png --k 4 --figures none --skip-bad "
                               "-o skipped"))
            .exit_code == 0);
  CHECK_FALSE(std::filesystem::exists(dir / "skipped/failures.csv"));
}

TEST_CASE("samples stay with their pictures when one is left out", "[cli][many]") {
  const TempDir dir;
  write_panels(dir);
  const json summary = json::parse(
      run_tool(dir, words_of("train bad.png panel-b.png --samples "
                             "panel-a.samples.geojson --samples panel-b.samples.geojson "
                             "--skip-bad --summary json -o out --figures none"))
          .out);
  REQUIRE(summary["inputs"].size() == 1);
  CHECK(summary["inputs"][0]["samples"] == "panel-b.samples.geojson");
  CHECK(summary["failed"].size() == 1);
  run_tool(dir, words_of("train panel-b.png --samples panel-b.samples.geojson -o one"));
  CHECK(text_of_file(dir / "out/model.json") == text_of_file(dir / "one/model.json"));
  CHECK(rows_of(dir / "out/failures.csv").size() == 1);
}

TEST_CASE("a ranking without its bad pictures, and tables that are none", "[cli][many]") {
  const TempDir dir;
  write_panels(dir);
  const Outcome ranked = run_tool(
      dir, words_of("similar panel-a.png bad.png panel-b.png --to panel-c.png --skip-bad -o out"));
  CHECK(ranked.exit_code == 1);
  CHECK(rows_of(dir / "out/similar.csv").size() == 2);
  CHECK(rows_of(dir / "out/failures.csv").size() == 1);
  put_text(dir / "none.csv", "not,a,table\n");
  const Outcome grouped = clusters_of(dir, "panel-a.png none.csv --skip-bad -o groups");
  CHECK(grouped.exit_code == 1);
  CHECK_THAT(grouped.err, Catch::Contains("none.csv: "));
  CHECK(std::filesystem::exists(dir / "groups/clusters.model.json"));
}

TEST_CASE("histogram tables add up without those that are none", "[cli][many]") {
  const TempDir dir;
  write_panels(dir);
  REQUIRE(run_tool(dir, words_of("histogram panel-a.png panel-b.png -o out --figures none"))
              .exit_code == 0);
  put_text(dir / "bad.csv", "channel,bin\n");
  const std::string line =
      "histogram --merge bad.csv out/panel-a.histogram.csv "
      "out/panel-b.histogram.csv -o merged --summary json";
  check_error(run_tool(dir, words_of(line)), 1,
              "bad.csv: is no table of channel or joint histograms; give tables that 'chalcedony "
              "histogram' wrote, or leave it out with --skip-bad");
  check_nothing_in(dir, "merged");
  const Outcome merged = run_tool(dir, words_of(line + " --skip-bad"));
  CHECK(merged.exit_code == 1);
  const json summary = json::parse(merged.out);
  CHECK(summary["merged"]["tables"] == 2);
  CHECK(summary["merged"]["pixels"] == 2 * 480 * 360);
  CHECK(summary["failed"].size() == 1);
  CHECK(rows_of(dir / "merged/failures.csv").size() == 1);
  // Tables of other bins are no bad files but a mistake.
  REQUIRE(
      run_tool(dir, words_of("histogram panel-c.png --bins 64 -o few --figures none")).exit_code ==
      0);
  CHECK_THAT(run_tool(dir, words_of("histogram --merge out/panel-a.histogram.csv "
                                    "few/panel-c.histogram.csv --skip-bad"))
                 .err,
             Catch::Contains("has other bins than the first table"));
  check_error(
      run_tool(dir, words_of("histogram panel-a.png --skip-bad")), 2,
      "--skip-bad means nothing here: of several pictures, those that are bad are left out");
}

TEST_CASE("where every input is bad, nothing is made", "[cli][many]") {
  const TempDir dir;
  write_panels(dir);
  const Outcome run = clusters_of(dir, "bad.png no.png --skip-bad -o out");
  CHECK(run.exit_code == 1);
  CHECK_THAT(run.err, Catch::EndsWith("chalcedony: error: no input can be used; give others\n"));
  check_nothing_in(dir, "out");
}
