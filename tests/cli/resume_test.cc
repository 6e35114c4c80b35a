// Runs over many pictures that are stopped and resumed, at the built program.
#include <sys/mount.h>
#include <sys/wait.h>

#include <catch2/catch.hpp>
#include <chrono>
#include <cstdlib>
#include <nlohmann/json.hpp>
#include <string>
#include <utility>

#include "tests/support/outcome.h"
#include "tests/support/panes.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

/// A disk of its own at a folder, when the test may make one.
class SmallDisk {
 public:
  SmallDisk(std::filesystem::path folder, const char* size) : folder_(std::move(folder)) {
    is_there_ = ::mount("none", folder_.c_str(), "tmpfs", 0, size) == 0;
  }
  SmallDisk(const SmallDisk&) = delete;
  SmallDisk& operator=(const SmallDisk&) = delete;
  ~SmallDisk() {
    if (is_there_) ::umount2(folder_.c_str(), MNT_DETACH);
  }
  bool is_there() const { return is_there_; }
  void resize(const char* size) const {
    ::mount("none", folder_.c_str(), "tmpfs", MS_REMOUNT, size);
  }

 private:
  std::filesystem::path folder_;
  bool is_there_ = false;
};

void set_time_back(const std::filesystem::path& path) {
  std::filesystem::last_write_time(path,
                                   std::filesystem::last_write_time(path) - std::chrono::hours(1));
}

}  // namespace

TEST_CASE("resuming leaves out what is done and unchanged", "[cli][many][resume]") {
  const TempDir dir;
  write_panes(dir);
  const json whole = summary_of(run_tool(dir, with(kCountPanes, {"-o", "out"})));
  const auto written = contents_of(dir / "out");
  const Words again = with(kCountPanes, {"-o", "out", "--resume"});
  json resumed = summary_of(run_tool(dir, again));
  CHECK(resumed["unchanged"] == 9);
  CHECK(resumed["inputs"] == whole["inputs"]);
  CHECK(resumed["outputs"] == whole["outputs"]);
  CHECK_FALSE(whole.contains("kept"));
  // All but the tables over all pictures.
  CHECK(resumed["kept"].size() + 3 == whole["outputs"].size());
  CHECK(contents_of(dir / "out") == written);
  // One picture changed, and a result of another is gone.
  write_rgb(dir / "panes/pane-3.png", 16, 8, random_bytes(16 * 8 * 3, 33));
  std::filesystem::remove(dir / "out/north/pane-8.joint.csv");
  resumed = summary_of(run_tool(dir, again));
  CHECK(resumed["unchanged"] == 7);
  CHECK(resumed["inputs"][2] != whole["inputs"][2]);
  CHECK(contents_of(dir / "out").at("north/pane-8.joint.csv") ==
        written.at("north/pane-8.joint.csv"));
  CHECK(contents_of(dir / "out") != written);
  // In the text the same is said.
  const auto text = run_tool(dir, {"inspect", "panes", "-o", "looked"});
  const auto later = run_tool(dir, {"inspect", "panes", "-o", "looked", "--resume"});
  CHECK_THAT(later.out, Catch::Contains("7 pictures done before, unchanged and left out\n"));
  CHECK_THAT(text.out, !Catch::Contains("unchanged"));
  CHECK_THAT(text.out, Catch::Contains("wrote looked/pane-1.statistics.csv\n"));
  CHECK_THAT(later.out, !Catch::Contains("wrote looked/pane-1.statistics.csv\n") &&
                            Catch::Contains("wrote looked/statistics.csv\n"));
}

TEST_CASE("pictures that are named besides join those that are done", "[cli][many][resume]") {
  const TempDir dir;
  write_panes(dir);
  const Words inspect{"inspect", "panes/pane-1.png", "panes/pane-3.png"};
  const Words more{"inspect", "panes/pane-1.png", "panes/pane-2.png", "panes/pane-3.png"};
  REQUIRE(run_tool(dir, with(inspect, {"-o", "out"})).exit_code == 0);
  const auto run = run_tool(dir, with(more, {"-o", "out", "--resume", "--summary", "json"}));
  CHECK(run.err.empty());
  CHECK(summary_of(run)["unchanged"] == 2);
  REQUIRE(run_tool(dir, with(more, {"-o", "whole"})).exit_code == 0);
  CHECK(text_of_file(dir / "out/statistics.csv") == text_of_file(dir / "whole/statistics.csv"));
  // Fewer are fewer.
  CHECK(summary_of(run_tool(
            dir, with(inspect, {"-o", "out", "--resume", "--summary", "json"})))["unchanged"] == 2);
  CHECK(rows_of(dir / "out/statistics.csv").size() == 6);
  // Where files go with the pictures by their order, another picture moves them on.
  for (const char* name : {"1", "2", "3"})
    put_text(dir / (std::string(name) + ".geojson"),
             R"({"type": "FeatureCollection", "features": [{"type": "Feature", "properties": )"
             R"({"class": "a"}, "geometry": {"type": "Point", "coordinates": [3, 3]}}]})");
  const Words to{"--to", "panes/pane-1.png", "-o", "spots", "--summary", "json"};
  REQUIRE(run_tool(dir, with({"spots", "panes/pane-1.png", "panes/pane-3.png", "--samples",
                              "1.geojson", "--samples", "3.geojson"},
                             to))
              .exit_code == 0);
  const auto moved =
      run_tool(dir, with({"spots", "panes/pane-2.png", "panes/pane-1.png", "--samples", "1.geojson",
                          "--samples", "3.geojson", "--resume"},
                         to));
  CHECK_THAT(moved.err, Catch::Contains("the results were made with other options"));
}

TEST_CASE("a folder that is called like the value of an option is no folder to be read",
          "[cli][many][resume]") {
  const TempDir dir;
  write_panes(dir);
  const auto convert = [&] {
    return summary_of(
        run_tool(dir, words_of("convert panes --to lab -o lab --resume --summary json")));
  };
  convert();
  CHECK(convert()["unchanged"] == 7);
  CHECK(json::parse(text_of_file(dir / "lab/how.json"))["runs"][0]["files"].empty());
}

TEST_CASE("verifying looks into pictures of another time", "[cli][many][resume]") {
  const TempDir dir;
  write_panes(dir);
  summary_of(run_tool(dir, with(kCountPanes, {"-o", "out"})));
  set_time_back(dir / "panes/pane-2.png");
  // A change that keeps size and time is seen by its content alone.
  const auto time = std::filesystem::last_write_time(dir / "panes/pane-4.png");
  std::string bytes = text_of_file(dir / "panes/pane-4.png");
  bytes[bytes.size() - 14] = static_cast<char>(bytes[bytes.size() - 14] ^ 1);  // inside a checksum
  put_text(dir / "panes/pane-4.png", bytes);
  std::filesystem::last_write_time(dir / "panes/pane-4.png", time);
  const Words again = with(kCountPanes, {"-o", "out", "--resume"});
  const auto verified = run_tool(dir, with(again, {"--verify"}));
  CHECK(verified.exit_code == 1);
  CHECK_THAT(verified.err, Catch::Contains("panes/pane-4.png"));
  CHECK(json::parse(verified.out)["unchanged"] == 8);
  check_error(run_tool(dir, with(kCountPanes, {"-o", "out", "--verify"})), 2,
              "--verify means nothing without --resume");
}

TEST_CASE("a run that was killed is resumed", "[cli][many][resume]") {
  const TempDir dir;
  write_panes(dir);
  summary_of(run_tool(dir, with(kCountPanes, {"-o", "whole"})));
  summary_of(run_tool(dir, with(kCountPanes, {"-o", "out"})));
  // What a kill after the third picture leaves: three lines and a part of the fourth.
  const auto journal = dir / "out/histogram.pictures.jsonl";
  const auto lines = lines_of(journal);
  REQUIRE(lines.size() == 10);
  put_text(journal, lines[0] + "\n" + lines[1] + "\n" + lines[2] + "\n" + lines[3] + "\n" +
                        lines[4].substr(0, 60));
  std::filesystem::remove(dir / "out/histogram.csv");
  std::filesystem::remove(dir / "out/how.json");
  const json resumed = summary_of(run_tool(dir, with(kCountPanes, {"-o", "out", "--resume"})));
  CHECK(resumed["unchanged"] == 3);
  CHECK(contents_of(dir / "out") == contents_of(dir / "whole"));
}

TEST_CASE("Ctrl-C leaves what is finished whole, and nothing half", "[cli][many][resume]") {
  const TempDir dir;
  std::filesystem::create_directories(dir / "panes");
  for (unsigned i = 1; i <= 60; ++i)
    write_rgb(dir / ("panes/pane-" + std::to_string(i) + ".png"), 16, 8,
              random_bytes(16 * 8 * 3, i));
  // Figures take long enough to be interrupted when the journal names a first picture.
  const std::string command =
      "cd '" + dir.path().string() +
      "' && { " CHALCEDONY_PROGRAM
      " histogram panes --figures png -o out >told 2>error & } && for i in $(seq 3000); do "
      "[ \"$(cat out/histogram.pictures.jsonl 2>/dev/null | wc -l)\" -gt 1 ] && break; "
      "sleep 0.02; done; kill -INT $!; wait $!";
  const int status = std::system(command.c_str());
  INFO(text_of_file(dir / "error"));
  REQUIRE(WEXITSTATUS(status) == 1);
  CHECK(text_of_file(dir / "error") ==
        "chalcedony: error: stopped before the end; what was finished is whole\n");
  for (const std::string& name : dir.files()) CHECK_THAT(name, !Catch::Contains(".part"));
  const json lines = lines_as_json(dir / "out/histogram.pictures.jsonl");
  const std::size_t done = lines.size() - 1;
  CHECK(done > 0);
  CHECK(done < 60);
  for (std::size_t i = 1; i < lines.size(); ++i)
    for (const json& output : lines[i]["outputs"])
      CHECK(std::filesystem::exists(dir / ("out" + output.get<std::string>().substr(5))));
  const json resumed = summary_of(run_tool(dir, {"histogram", "panes", "--figures", "png", "-o",
                                                 "out", "--resume", "--summary", "json"}));
  CHECK(resumed["unchanged"] == done);
  CHECK(resumed["inputs"].size() == 60);
}

TEST_CASE("results of other options are made again", "[cli][many][resume]") {
  const TempDir dir;
  write_panes(dir);
  const Words mask{"mask", "panes", "-o", "out", "--write", "mask", "--resume", "--where"};
  CHECK(run_tool(dir, with(mask, {"gray > 100"})).exit_code == 0);
  const auto other = run_tool(dir, with(mask, {"gray > 120"}));
  CHECK(other.exit_code == 0);
  CHECK_THAT(other.err, Catch::Contains("warning: out/mask.pictures.jsonl: the results were made "
                                        "with other options, so all pictures are done again"));
  CHECK_THAT(other.out, !Catch::Contains("unchanged"));
  // A model that was trained anew is another option too.
  const Words train{"train", "panes/pane-1.png", "--sample", "a=0,0,8,4", "-o",
                    ".",     "--write",          "model"};
  const Words classify{"classify", "panes",   "--model", "model.json", "-o",
                       "map",      "--write", "classes", "--resume"};
  CHECK(run_tool(dir, with(train, {"--sample", "b=8,4,8,4"})).exit_code == 0);
  CHECK(run_tool(dir, classify).exit_code == 0);
  CHECK_THAT(run_tool(dir, classify).out, Catch::Contains("7 pictures done before"));
  CHECK(run_tool(dir, with(train, {"--sample", "b=8,0,8,4"})).exit_code == 0);
  CHECK_THAT(run_tool(dir, classify).err, Catch::Contains("made with other options"));
  // Something else under the journal's name.
  put_text(dir / "out/mask.pictures.jsonl", "not a journal\n");
  CHECK_THAT(run_tool(dir, with(mask, {"gray > 120"})).err,
             Catch::Contains("out/mask.pictures.jsonl: is no journal of pictures"));
}

TEST_CASE("a full disk is told, and the run resumed once there is room", "[cli][many][resume]") {
  const TempDir dir;
  write_panes(dir);
  std::filesystem::create_directories(dir / "out");
  const SmallDisk disk(dir / "out", "size=28k");
  if (!disk.is_there()) {
    WARN("no small disk can be made here (that needs root): a full one was not tried");
    return;
  }
  const Words convert{"convert", "panes", "--recursive", "--to", "oklab", "-o", "out"};
  const auto full = run_tool(dir, convert);
  CHECK(full.exit_code == 1);
  CHECK_THAT(full.err, Catch::Contains("No space left on device); make room on the disk"));
  std::size_t whole = 0;
  for (const std::string& name : dir.files()) {
    if (!name.starts_with("out/")) continue;
    INFO(name);
    CHECK_THAT(name, !Catch::Contains(".part"));
    if (!name.ends_with(".tif")) continue;
    ++whole;
    CHECK(open_picture(dir / name, {}).info.shape.width == 16);
  }
  CHECK(whole > 0);
  CHECK(whole < 9);
  disk.resize("size=4m");
  CHECK(run_tool(dir, with(convert, {"--resume"})).exit_code == 0);
  CHECK(run_tool(dir, {"convert", "panes", "--recursive", "--to", "oklab", "-o", "whole"})
            .exit_code == 0);
  CHECK(contents_of(dir / "out") == contents_of(dir / "whole"));
}
