// Runs over many pictures at the built program: side by side, stopped and resumed, made again, in
// shards.
#include <sys/mount.h>
#include <sys/wait.h>

#include <algorithm>
#include <catch2/catch.hpp>
#include <chrono>
#include <cstdlib>
#include <map>
#include <nlohmann/json.hpp>
#include <set>
#include <string>
#include <utility>

#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

using Words = std::vector<std::string>;

/// pane-1 ... pane-9 of different colors, two of them in a folder below, and a bad one if asked.
void write_panes(const TempDir& dir, bool bad = false) {
  std::filesystem::create_directories(dir / "panes/north");
  for (unsigned i = 1; i <= 9; ++i)
    write_rgb(dir / ((i > 7 ? "panes/north/pane-" : "panes/pane-") + std::to_string(i) + ".png"),
              16, 8, random_bytes(16 * 8 * 3, i));
  if (bad) put_text(dir / "panes/pane-5b.png", "this is no picture");
}

/// Every file of a folder and what is in it.
std::map<std::string, std::string> contents_of(const std::filesystem::path& folder) {
  std::map<std::string, std::string> contents;
  for (const auto& entry : std::filesystem::recursive_directory_iterator(folder))
    if (entry.is_regular_file())
      contents[entry.path().lexically_relative(folder).string()] = text_of_file(entry.path());
  return contents;
}

const Words kCount{"histogram", "panes",   "--recursive", "--channels",  "hsv.s,lab.l",
                   "--bins",    "8",       "--joint",     "hsv.h,hsv.s", "--joint-bins",
                   "6,4",       "--peaks", "2",           "--figures",   "none",
                   "--summary", "json"};

json lines_as_json(const std::filesystem::path& path) {
  json lines = json::array();
  for (const std::string& line : lines_of(path)) lines.push_back(json::parse(line));
  return lines;
}

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

TEST_CASE("pictures worked on side by side give the bytes of one after the other", "[cli][many]") {
  const TempDir dir;
  write_panes(dir, true);
  for (const char* threads : {"1", "2", "5"}) {
    const std::string folder = std::string("t") + threads;
    CHECK(run_tool(dir, with(kCount, {"--threads", threads, "-o", folder})).exit_code == 1);
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
  const json done = summary_of(run_tool(dir, with(kCount, {"-o", "out"})));
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

TEST_CASE("resuming leaves out what is done and unchanged", "[cli][many][resume]") {
  const TempDir dir;
  write_panes(dir);
  const json whole = summary_of(run_tool(dir, with(kCount, {"-o", "out"})));
  const auto written = contents_of(dir / "out");
  const Words again = with(kCount, {"-o", "out", "--resume"});
  json resumed = summary_of(run_tool(dir, again));
  CHECK(resumed["unchanged"] == 9);
  CHECK(resumed["inputs"] == whole["inputs"]);
  CHECK(resumed["outputs"] == whole["outputs"]);
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
}

TEST_CASE("verifying looks into pictures of another time", "[cli][many][resume]") {
  const TempDir dir;
  write_panes(dir);
  summary_of(run_tool(dir, with(kCount, {"-o", "out"})));
  set_time_back(dir / "panes/pane-2.png");
  // A change that keeps size and time is seen by its content alone.
  const auto time = std::filesystem::last_write_time(dir / "panes/pane-4.png");
  std::string bytes = text_of_file(dir / "panes/pane-4.png");
  bytes[bytes.size() - 14] = static_cast<char>(bytes[bytes.size() - 14] ^ 1);  // inside a checksum
  put_text(dir / "panes/pane-4.png", bytes);
  std::filesystem::last_write_time(dir / "panes/pane-4.png", time);
  const Words again = with(kCount, {"-o", "out", "--resume"});
  const auto verified = run_tool(dir, with(again, {"--verify"}));
  CHECK(verified.exit_code == 1);
  CHECK_THAT(verified.err, Catch::Contains("panes/pane-4.png"));
  CHECK(json::parse(verified.out)["unchanged"] == 8);
  check_error(run_tool(dir, with(kCount, {"-o", "out", "--verify"})), 2,
              "--verify means nothing without --resume");
}

TEST_CASE("a run that was killed is resumed", "[cli][many][resume]") {
  const TempDir dir;
  write_panes(dir);
  summary_of(run_tool(dir, with(kCount, {"-o", "whole"})));
  summary_of(run_tool(dir, with(kCount, {"-o", "out"})));
  // What a kill after the third picture leaves: three lines and a part of the fourth.
  const auto journal = dir / "out/histogram.pictures.jsonl";
  const auto lines = lines_of(journal);
  REQUIRE(lines.size() == 10);
  put_text(journal, lines[0] + "\n" + lines[1] + "\n" + lines[2] + "\n" + lines[3] + "\n" +
                        lines[4].substr(0, 60));
  std::filesystem::remove(dir / "out/histogram.csv");
  std::filesystem::remove(dir / "out/how.json");
  const json resumed = summary_of(run_tool(dir, with(kCount, {"-o", "out", "--resume"})));
  CHECK(resumed["unchanged"] == 3);
  CHECK(contents_of(dir / "out") == contents_of(dir / "whole"));
}

TEST_CASE("Ctrl-C leaves what is finished whole, and nothing half", "[cli][many][resume]") {
  const TempDir dir;
  std::filesystem::create_directories(dir / "panes");
  for (unsigned i = 1; i <= 60; ++i)
    write_rgb(dir / ("panes/pane-" + std::to_string(i) + ".png"), 16, 8,
              random_bytes(16 * 8 * 3, i));
  // Figures take long enough to be interrupted.
  const std::string command = "cd '" + dir.path().string() +
                              "' && timeout --preserve-status -s INT 1.2 " CHALCEDONY_PROGRAM
                              " histogram panes --figures png -o out >told 2>error";
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

TEST_CASE("how.json says what made the results, and makes them again", "[cli][many][how]") {
  const TempDir dir;
  write_panes(dir);
  CHECK(run_tool(dir, {"train", "panes/pane-1.png", "--sample", "a=0,0,8,4", "--sample",
                       "b=8,4,8,4", "--figures", "none", "-o", "out"})
            .exit_code == 0);
  CHECK(run_tool(dir, {"classify", "panes", "--recursive", "--model", "out/model.json", "-o", "out",
                       "--write", "classes,areas", "--threads", "1"})
            .exit_code == 0);
  CHECK(run_tool(dir, {"smooth", "panes/pane-2.png", "--filter", "median", "--radius", "1", "-o",
                       "out/soft.png"})
            .exit_code == 0);
  const json how = json::parse(text_of_file(dir / "out/how.json"));
  CHECK(how["chalcedony"] == "how");
  REQUIRE(how["runs"].size() == 3);
  const json& classify = how["runs"][1];
  CHECK(classify["command"] == "classify");
  CHECK(classify["operands"] == json{"panes"});
  CHECK(classify["options"] ==
        json{{"model", "{out}/model.json"}, {"recursive", true}, {"write", "classes,areas"}});
  CHECK(classify["from"] == "..");
  CHECK(classify["seed"] == 1);
  REQUIRE(classify["inputs"].size() == 9);
  CHECK(classify["inputs"][8]["file"] == "panes/north/pane-9.png");
  CHECK(classify["inputs"][0]["bytes"] == std::filesystem::file_size(dir / "panes/pane-1.png"));
  CHECK(classify["inputs"][0]["hash"].get<std::string>().size() == 32);
  CHECK(classify["files"][0]["file"] == "{out}/model.json");
  CHECK(classify["outputs"].size() == 9 * 2 + 1);
  CHECK(how["runs"][2]["output"] == "soft.png");

  const auto planned = run_tool(dir, {"run", "out/how.json", "-o", "again", "--dry-run"});
  CHECK_THAT(planned.out, Catch::Contains("$ chalcedony classify panes --model again/model.json "
                                          "--recursive --write classes,areas -o again\n"));
  CHECK_FALSE(std::filesystem::exists(dir / "again"));
  const json again =
      summary_of(run_tool(dir, {"run", "out/how.json", "-o", "again", "--summary", "json"}));
  CHECK(again["steps"].size() == 3);
  CHECK(contents_of(dir / "again") == contents_of(dir / "out"));

  write_rgb(dir / "panes/north/pane-9.png", 16, 8, random_bytes(16 * 8 * 3, 99));
  check_error(run_tool(dir, {"run", "out/how.json", "-o", "third"}), 1,
              "panes/north/pane-9.png: is not what it was when the results were made");
  CHECK_FALSE(std::filesystem::exists(dir / "third"));
}

TEST_CASE("a run that is done again takes the place of the one before", "[cli][many][how]") {
  const TempDir dir;
  write_panes(dir);
  const auto runs = [&] { return json::parse(text_of_file(dir / "out/how.json"))["runs"]; };
  const Words mask{"mask", "panes/pane-1.png", "--figures", "none", "-o",
                   "out",  "--where",          "gray > 100"};
  CHECK(run_tool(dir, mask).exit_code == 0);
  CHECK(run_tool(dir, {"inspect", "panes/pane-1.png", "-o", "out"}).exit_code == 0);
  CHECK(runs().size() == 2);
  CHECK(run_tool(dir, with(mask, {"--write", "mask"})).exit_code == 0);
  REQUIRE(runs().size() == 3);
  CHECK(runs()[0]["outputs"] == json{"pane-1.cutout.png"});
  CHECK(run_tool(dir, mask).exit_code == 0);
  REQUIRE(runs().size() == 2);
  CHECK(runs()[1]["command"] == "mask");
  CHECK(runs()[1]["outputs"] == json{"pane-1.mask.png", "pane-1.cutout.png"});
  // A file of that name that is none of ours stays.
  put_text(dir / "out/how.json", "{\"note\": 1}");
  check_error(run_tool(dir, {"inspect", "panes/pane-1.png", "-o", "out", "-q"}), 1,
              "out/how.json: is no record of runs and is not replaced; move it away");
  CHECK(text_of_file(dir / "out/how.json") == "{\"note\": 1}");
}

TEST_CASE("a how.json that was edited is refused, whatever is wrong in it", "[cli][many][how]") {
  const TempDir dir;
  write_rgb(dir / "a.png", 2, 1, {1, 2, 3, 200, 100, 0});
  summary_of(run_tool(dir, {"inspect", "a.png", "-o", "out", "--summary", "json"}));
  const json good = json::parse(text_of_file(dir / "out/how.json"));
  std::vector<json> bad;
  for (const auto& [key, value] : good["runs"][0].items()) {
    if (key == "seed") continue;  // told, never read
    for (const json& other : {json(7), json(nullptr), json{{"a", 1}}, json{1, 2}}) {
      bad.push_back(good);
      bad.back()["runs"][0][key] = other;
    }
  }
  for (const json& runs : {json(7), json{{"a", 1}}, json{1}}) {
    bad.push_back(good);
    bad.back()["runs"] = runs;
  }
  for (const json& how : bad) {
    INFO(how.dump());
    put_text(dir / "out/how.json", how.dump());
    check_error(run_tool(dir, {"run", "out/how.json", "-o", "again"}), 1,
                "out/how.json: is damaged");
    check_error(run_tool(dir, {"report", "out"}), 1, "out/how.json: is damaged");
    check_error(run_tool(dir, {"mask", "a.png", "--auto", "gray", "-o", "out", "-q"}), 1,
                "out/how.json: is damaged");
    CHECK(text_of_file(dir / "out/how.json") == how.dump());
    check_nothing_in(dir, "again");
  }
  for (const json& name : {json(3), json("model")}) {
    json how = good;
    how["chalcedony"] = name;
    put_text(dir / "out/how.json", how.dump());
    check_error(run_tool(dir, {"report", "out"}), 1, "out/how.json: is no record of runs");
  }
}

TEST_CASE("shards put together are one run, byte by byte", "[cli][many][shards]") {
  const TempDir dir;
  write_panes(dir, true);
  CHECK(run_tool(dir, with(kCount, {"-o", "one"})).exit_code == 1);
  CHECK(run_tool(dir, {"inspect", "panes", "-o", "one"}).exit_code == 1);
  std::set<std::string> seen;
  for (const std::string part : {"1", "2", "3"}) {
    const auto run = run_tool(dir, with(kCount, {"--shard", part + "/3", "-o", "s" + part}));
    const json done = json::parse(run.out);
    const std::size_t pictures = done["inputs"].size() + done["failed"].size();
    CHECK((pictures == 3 || pictures == 4));
    for (const json& input : done["inputs"])
      CHECK(seen.insert(input["file"].get<std::string>()).second);
    run_tool(dir, {"inspect", "panes", "--shard", part + "/3", "-o", "s" + part});
  }
  CHECK(seen.size() == 9);
  // In any order.
  const json gathered =
      summary_of(run_tool(dir, {"gather", "s3", "s1", "s2", "-o", "all", "--summary", "json"}));
  REQUIRE(gathered["runs"].size() == 2);
  CHECK(gathered["runs"][0] ==
        json{{"command", "histogram"}, {"shards", 3}, {"pictures", 10}, {"failed", 1}});
  CHECK(contents_of(dir / "all") == contents_of(dir / "one"));
  // The journals are kept, so that a picture more is one picture more.
  write_rgb(dir / "panes/pane-10.png", 16, 8, random_bytes(16 * 8 * 3, 10));
  const auto more = run_tool(dir, with(kCount, {"-o", "all", "--resume"}));
  CHECK(json::parse(more.out)["unchanged"] == 9);
}

TEST_CASE("shards that do not make a whole are refused", "[cli][many][shards]") {
  const TempDir dir;
  write_panes(dir);
  for (const std::string part : {"1", "2"})
    CHECK(run_tool(dir, {"inspect", "panes", "--shard", part + "/2", "-o", "s" + part}).exit_code ==
          0);
  CHECK(run_tool(dir, {"inspect", "panes", "-o", "whole"}).exit_code == 0);
  CHECK(run_tool(dir, {"inspect", "panes", "--space", "lab", "--shard", "2/2", "-o", "lab"})
            .exit_code == 0);
  check_error(run_tool(dir, {"gather", "s1", "-o", "all"}), 1,
              "shard 2/2 of 'inspect' is missing; run it");
  check_error(run_tool(dir, {"gather", "s1", "lab", "-o", "all"}), 1,
              "shard 2/2 of 'inspect' is missing");
  check_error(run_tool(dir, {"gather", "s1", "s2", "s1", "-o", "all"}), 1,
              "s1: holds shard 1/2 of 'inspect', as does s1; give each shard once");
  check_error(run_tool(dir, {"gather", "s1", "whole", "-o", "all"}), 1,
              "whole: holds results of 'inspect' that were not made with --shard");
  check_error(run_tool(dir, {"gather", "panes", "-o", "all"}), 1, "panes/how.json");
  check_error(run_tool(dir, {"gather", "-o", "all"}), 2, "no shard is given");
  check_error(run_tool(dir, {"gather", "s1", "s2"}), 2, "gather needs -o");
  check_nothing_in(dir, "all");
  for (const char* shard : {"0/2", "3/2", "1", "a/b", "1/2/3"})
    check_error(run_tool(dir, {"inspect", "panes", "--shard", shard, "-o", "x"}), 2, "--shard: '");
  check_error(run_tool(dir, {"inspect", "panes", "--shard", "1/2"}), 2, "--shard needs a folder");
  check_error(run_tool(dir, {"cluster", "panes", "--k", "2", "--shard", "1/2", "-o", "x"}), 2,
              "there is no option '--shard'");
  CHECK_FALSE(std::filesystem::exists(dir / "x"));
}

TEST_CASE("groups and palettes of gathered colors are those of the pictures",
          "[cli][many][shards]") {
  const TempDir dir;
  write_panes(dir);
  write_stripes(dir / "panes/pane-0.png");
  for (const std::string part : {"1", "2"})
    CHECK(run_tool(dir, {"histogram", "panes", "--recursive", "--colors", "--shard", part + "/2",
                         "-o", "s" + part})
              .exit_code == 0);
  CHECK(run_tool(dir, {"gather", "s1", "s2", "-o", "all"}).exit_code == 0);
  std::uint64_t pixels = 0;
  const auto table = rows_of(dir / "all/colors.csv");
  for (const auto& row : table) pixels += std::stoull(row.at("pixels"));
  CHECK(pixels == 9 * 16 * 8 + 20 * 10);
  CHECK(table.front().at("srgb.r") == "0");
  const Words groups{"--k", "3..5", "--figures", "none", "--write", "model,centers", "-o"};
  const json of_table = summary_of(run_tool(
      dir, with({"cluster", "all/colors.csv", "--summary", "json"}, with(groups, {"of-table"}))));
  const json of_pictures =
      summary_of(run_tool(dir, with({"cluster", "panes", "--recursive", "--summary", "json"},
                                    with(groups, {"of-pictures"}))));
  CHECK(of_table["clusters"] == of_pictures["clusters"]);
  CHECK_FALSE(of_table["choices"][0].contains("lone_percent"));
  for (const char* file : {"clusters.centers.csv", "clusters.model.json"})
    CHECK(text_of_file(dir / (std::string("of-table/") + file)) ==
          text_of_file(dir / (std::string("of-pictures/") + file)));
  CHECK_THAT(run_tool(dir, {"cluster", "all/colors.csv", "--k", "2..3"}).out,
             Catch::Contains("1,352 pixels counted"));
  // A palette of one picture and of its table.
  CHECK(run_tool(dir, {"palette", "panes/pane-0.png", "--figures", "none", "-o", "p"}).exit_code ==
        0);
  const std::string own = (std::filesystem::exists(dir / "s1/pane-0.colors.csv") ? "s1" : "s2") +
                          std::string("/pane-0.colors.csv");
  CHECK(run_tool(dir, {"palette", own, "-o", "p"}).exit_code == 0);
  CHECK(text_of_file(dir / "p/pane-0.colors.palette.csv") ==
        text_of_file(dir / "p/pane-0.palette.csv"));
}

TEST_CASE("what is no table of colors or samples is refused", "[cli][many]") {
  const TempDir dir;
  write_stripes(dir / "a.png");
  put_text(dir / "t.csv", "srgb.r,srgb.g,srgb.b,pixels\n1,2,300,4\n");
  check_error(run_tool(dir, {"cluster", "t.csv", "--k", "2", "-o", "x"}), 1,
              "t.csv: is no table of colors; give colors.csv as histogram --colors writes it");
  put_text(dir / "t.csv", "srgb.r,srgb.g,srgb.b,pixels\n1,2,3,4\n9,9,9,1\n");
  check_error(run_tool(dir, {"cluster", "t.csv", "--k", "2", "--features", "file.0", "-o", "x"}), 1,
              "a table of colors has no channels of a file");
  check_error(run_tool(dir, {"train", "t.csv", "-o", "x"}), 1, "t.csv: is no table of samples");
  put_text(dir / "s.csv", "class,color,pixels,oklab.l\nred,#ff0000,3,0.5\n");
  check_error(run_tool(dir, {"train", "s.csv", "-o", "x"}), 1,
              "s.csv: has the features oklab.l; train with the same --features");
  put_text(dir / "s.csv", "class,color,pixels,oklab.l\nred,#ff0000,3,half\n");
  check_error(run_tool(dir, {"train", "s.csv", "--features", "oklab.l", "-o", "x"}), 1,
              "s.csv: holds 'half' where a number belongs");
  check_error(run_tool(dir, {"train", "s.csv", "--features", "oklab.l", "--holdout", "0.3"}), 2,
              "a table of samples has none");
  write_picture(dir / "deep.png", spec_of(4, 4, 3, SampleType::kU16),
                bytes_of(std::vector<std::uint16_t>(48, 300)));
  PictureSpec lab = spec_of(4, 4, 3);
  lab.space = &spaces::kLab;
  write_picture(dir / "lab.png", lab, bytes_of(std::vector<std::uint8_t>(48, 30)));
  for (const std::string name : {"deep", "lab"}) {
    check_error(run_tool(dir, {"histogram", name + ".png", "--colors", "-o", name}), 1,
                name +
                    ".png: its colors cannot be counted, as they are not 8-bit RGB; convert it "
                    "to srgb with --depth 8");
    CHECK_FALSE(std::filesystem::exists(dir / name / (name + ".colors.csv")));
  }
  CHECK_FALSE(std::filesystem::exists(dir / "x/clusters.model.json"));
}

TEST_CASE("a model of kept samples is that of the pictures", "[cli][many][train]") {
  const TempDir dir;
  write_panes(dir);
  const auto samples = [&](const char* file, int shift) {
    json shapes{{"type", "FeatureCollection"}, {"features", json::array()}};
    for (int c = 0; c < 2; ++c) {
      const int x = 8 * c + shift;
      shapes["features"].push_back(
          {{"type", "Feature"},
           {"properties", {{"class", c == 0 ? "left" : "right"}}},
           {"geometry",
            {{"type", "Polygon"},
             {"coordinates", {{{x, 0}, {x + 6, 0}, {x + 6, 8}, {x, 8}, {x, 0}}}}}}});
    }
    put_text(dir / file, shapes.dump());
  };
  samples("1.geojson", 0);
  samples("2.geojson", 1);
  const Words train{"train", "--method", "maximum-likelihood", "--figures", "none"};
  CHECK(run_tool(dir, with(train, {"panes/pane-1.png", "panes/pane-2.png", "--samples", "1.geojson",
                                   "--samples", "2.geojson", "-o", "one"}))
            .exit_code == 0);
  for (const std::string i : {"1", "2"})
    CHECK(run_tool(dir, with(train, {"panes/pane-" + i + ".png", "--samples", i + ".geojson",
                                     "--keep-samples", "-o", "kept" + i}))
              .exit_code == 0);
  const auto merged = run_tool(
      dir, with(train, {"kept1/sample-table.csv", "kept2/sample-table.csv", "-o", "merged"}));
  INFO(merged.err);
  CHECK(merged.exit_code == 0);
  CHECK_THAT(merged.out,
             Catch::Contains("kept2/sample-table.csv: 96 sample pixels that were kept"));
  const json one = json::parse(text_of_file(dir / "one/model.json"));
  const json both = json::parse(text_of_file(dir / "merged/model.json"));
  CHECK(one["classes"] == both["classes"]);
  CHECK(text_of_file(dir / "one/samples.csv") == text_of_file(dir / "merged/samples.csv"));
  // A table beside a picture.
  CHECK(run_tool(dir, with(train, {"kept1/sample-table.csv", "panes/pane-2.png", "--samples",
                                   "2.geojson", "-o", "mixed"}))
            .exit_code == 0);
  CHECK(json::parse(text_of_file(dir / "mixed/model.json"))["classes"] == one["classes"]);
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
