// `correct` at the built program: the demo's target brought to its colors, corrections kept and
// used again, and what it refuses.
#include <catch2/catch.hpp>
#include <cmath>
#include <nlohmann/json.hpp>

#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

const std::string kTarget =
    "correct target.png --samples target.samples.geojson --known "
    "target.known.csv ";

void copy_target(const TempDir& dir) {
  for (const char* name : {"target.png", "target.samples.geojson", "target.known.csv"})
    copy_demo(dir, name);
}

/// Mean Lab of a square of a picture.
std::array<double, 3> lab_at(const TempDir& dir, const std::string& name, int x, int y) {
  const json seen =
      summary_of(run_tool(dir, {"inspect", name, "--space", "lab", "--region",
                                std::to_string(x - 20) + "," + std::to_string(y - 20) + ",40,40",
                                "--summary", "json"}));
  std::array<double, 3> lab{};
  for (std::size_t c = 0; c < 3; ++c) lab[c] = seen["inputs"][0]["channels"][c]["mean"];
  return lab;
}

double apart(const std::array<double, 3>& a, const std::array<double, 3>& b) {
  return std::hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
}

/// Five patches of one color each, 10 x 10, and the table of their colors, which are as they are.
void write_row(const TempDir& dir, std::uint8_t brightest = 250) {
  const std::vector<std::array<std::uint8_t, 3>> colors{
      {brightest, 240, 235}, {200, 30, 40}, {40, 160, 60}, {30, 60, 180}, {120, 120, 110}};
  std::vector<std::uint8_t> rgb;
  for (int y = 0; y < 10; ++y)
    for (const auto& color : colors)
      for (int x = 0; x < 10; ++x) rgb.insert(rgb.end(), color.begin(), color.end());
  write_rgb(dir / "row.png", 50, 10, rgb);
  put_text(dir / "row.csv",
           "name,srgb.r,srgb.g,srgb.b,note\nwhite,250,240,235,x\nred,200,30,40,\n"
           "green,40,160,60,\nblue,30,60,180,\ngray,120,120,110,\n");
}

const std::string kRow =
    "correct row.png --known row.csv --sample white=1,1,8,8 --sample red=11,1,8,8 --sample "
    "green=21,1,8,8 --sample blue=31,1,8,8 ";

}  // namespace

TEST_CASE("correct brings a target to its known colors", "[cli][correct]") {
  const TempDir dir;
  copy_target(dir);
  const json found = summary_of(run_tool(
      dir, words_of(kTarget + "--save light.json -o right.png --summary json")))["inputs"][0];
  REQUIRE(found["patches"].size() == 20);
  CHECK(found["before"]["mean"] > 7);
  CHECK(found["after"]["mean"] < 0.6);
  CHECK(found["left_out"]["mean"] < 0.7);
  CHECK(found["left_out"]["mean"] > found["after"]["mean"]);
  CHECK(dir.files().contains("right.figure.png"));
  // What the written picture holds, by another command: white, ruby, sky.
  CHECK(apart(lab_at(dir, "target.png", 46, 46), {95, 0, 1}) > 10);
  CHECK(apart(lab_at(dir, "right.png", 46, 46), {95, 0, 1}) < 1.5);
  CHECK(apart(lab_at(dir, "right.png", 130, 46), {34, 50, 24}) < 2);
  CHECK(apart(lab_at(dir, "right.png", 214, 130), {66, -10, -30}) < 1.5);
  // The same correction from the file, and on another number of threads.
  summary_of(run_tool(dir, words_of("correct target.png --apply light.json -o again.png --threads "
                                    "1 --summary json")));
  CHECK(bytes_in(dir / "again.png") == bytes_in(dir / "right.png"));
  CHECK_FALSE(dir.files().contains("again.figure.png"));
  summary_of(
      run_tool(dir, words_of(kTarget + "--save one.json -o one.png --threads 1 --summary json")));
  CHECK(text_of_file(dir / "one.json") == text_of_file(dir / "light.json"));
}

TEST_CASE("the tone curve of a camera is undone when it is asked for", "[cli][correct]") {
  const TempDir dir;
  copy_target(dir);
  // Contrast put on the codes of the target.
  json curve{{"kind", "table"}, {"black", 0.0}, {"white", 1.0}, {"table", json::array()}};
  for (int i = 0; i <= 64; ++i)
    curve["table"].push_back(i / 64.0 - 0.05 * std::sin(2 * std::acos(-1.0) * i / 64.0));
  put_text(dir / "crisp.json", json{{"chalcedony", "curves"},
                                    {"version", 1},
                                    {"of", "channels"},
                                    {"curves", {curve, curve, curve}}}
                                   .dump());
  summary_of(run_tool(dir, words_of("balance target.png --apply crisp.json -o crisp.png --figures "
                                    "none --summary json")));
  const std::string line =
      "correct crisp.png --samples target.samples.geojson --known target.known.csv ";
  const json plain =
      summary_of(run_tool(dir, words_of(line + "-o plain.png --summary json")))["inputs"][0];
  CHECK(plain["left_out"]["mean"] > 2);
  CHECK_FALSE(plain.contains("tone"));
  CHECK_THAT(run_tool(dir, words_of(line + "-o plain.png")).out,
             Catch::Contains("  --tone would help: with the tone curve of the camera undone, left "
                             "out has a mean of 0."));
  const json found = summary_of(run_tool(
      dir, words_of(line + "--tone --save tone.json -o right.png --summary json")))["inputs"][0];
  CHECK(found["left_out"]["mean"] < 0.8);
  CHECK(found["left_out"]["mean"].get<double>() ==
        Approx(plain["left_out_mean_with_tone"].get<double>()));
  CHECK_FALSE(found.contains("left_out_mean_with_tone"));
  // Below the middle codes had become darker, above brighter.
  for (const json& code : found["tone"]["codes"])
    if (code["found"] != 128) CHECK((code["undone"] > code["found"]) == (code["found"] < 128));
  CHECK(apart(lab_at(dir, "right.png", 214, 214), {48, -6, 38}) < 2);
  CHECK(apart(lab_at(dir, "plain.png", 214, 214), {48, -6, 38}) > 3);
  summary_of(run_tool(dir, words_of("correct crisp.png --apply tone.json -o again.png --threads 1 "
                                    "--summary json")));
  CHECK(bytes_in(dir / "again.png") == bytes_in(dir / "right.png"));
  CHECK_THAT(run_tool(dir, words_of("correct crisp.png --apply tone.json -o again.png")).out,
             Catch::Contains("  tone curve undone, in codes of srgb: 32 to "));
  // A target without such a curve asks for none.
  CHECK_FALSE(
      summary_of(run_tool(dir, words_of(kTarget + "-o out.png --summary json")))["inputs"][0]
          .contains("left_out_mean_with_tone"));
}

TEST_CASE("a target in even rows needs no regions", "[cli][correct]") {
  const TempDir dir;
  copy_target(dir);
  const json found = summary_of(run_tool(
      dir, words_of("correct target.png --layout 5x4=4,4,420,336 --known target.known.csv -o "
                    "right.png --summary json")))["inputs"][0];
  REQUIRE(found["patches"].size() == 20);
  CHECK(found["patches"][7]["name"] == "sky");
  CHECK(found["patches"][7]["pixels"] == 28 * 28);
  CHECK(found["after"]["mean"] < 0.6);
  check_error(run_tool(dir, words_of("correct target.png --layout 5x3=4,4,420,336 --known "
                                     "target.known.csv -o out.png")),
              1, "--layout: has 15 patches, and 20 colors are known; give a line for each patch");
  check_error(
      run_tool(dir, words_of("correct target.png --layout 5=4,4,420,336 --known "
                             "target.known.csv -o out.png")),
      2,
      "--layout: '5=4,4,420,336' does not say columns, rows and a rectangle; write it as in "
      "6x4=10,10,600,400");
  CHECK_FALSE(dir.files().contains("out.png"));
}

TEST_CASE("correct doubts patches that have the wrong names", "[cli][correct]") {
  const TempDir dir;
  copy_target(dir);
  const std::string with = " --layout 5x4=4,4,420,336 --known target.known.csv --figures none -o ";
  CHECK(run_tool(dir, words_of("correct target.png" + with + "out.png")).err.empty());
  summary_of(run_tool(dir, words_of("reframe target.png --turn 180 -o head.png --summary json")));
  CHECK_THAT(run_tool(dir, words_of("correct head.png" + with + "out.png")).err,
             Catch::Contains("head.png: corrected, the patches are still ") &&
                 Catch::Contains(" off on average; see whether each has the name of its color. In "
                                 "the opposite order they are 0.5 off: the target may stand on "
                                 "its head"));
  CHECK_THAT(run_tool(dir, words_of("correct target.png --layout 4x5=4,4,420,336 --known "
                                    "target.known.csv -o out.png"))
                 .err,
             Catch::Contains("see whether each has the name of its color\n"));
}

TEST_CASE("correct says how far each patch is off", "[cli][correct]") {
  const TempDir dir;
  copy_target(dir);
  const Outcome run = run_tool(dir, words_of(kTarget + "-o right.png --figures none"));
  CHECK(run.exit_code == 0);
  CHECK_THAT(run.out,
             Catch::Contains("patch     pixels             known L a b             found L a b  "
                             "before  after  left out\n") &&
                 Catch::Contains("pearl      1,936   82.00    0.00    0.00   77.08") &&
                 Catch::Contains("differences are delta E 2000, white of Lab D50\n") &&
                 Catch::Contains("  left out  mean 0.") &&
                 Catch::Contains("% leave the range and are cut off\nwrote right.png\n"));
}

TEST_CASE("patches that are right already leave a picture as it is", "[cli][correct]") {
  const TempDir dir;
  write_row(dir);
  const json found =
      summary_of(run_tool(dir, words_of(kRow + "-o same.png --summary json")))["inputs"][0];
  CHECK(found["after"]["max"].get<double>() < 0.01);
  CHECK(bytes_in(dir / "same.png") == bytes_in(dir / "row.png"));
  // Also in floats, and a picture in another space.
  summary_of(run_tool(dir, words_of("convert row.png --to a98-rgb --depth float -o wide.tif "
                                    "--summary json")));
  const json wide = summary_of(run_tool(
      dir, words_of("correct wide.tif --known row.csv --sample white=1,1,8,8 --sample "
                    "red=11,1,8,8 --sample green=21,1,8,8 --sample blue=31,1,8,8 -o out.tif "
                    "--summary json")))["inputs"][0];
  CHECK(wide["before"]["max"].get<double>() < 0.01);
  CHECK(wide["output"] == "out.tif");
}

TEST_CASE("where other patches cannot judge one, nothing is said of it", "[cli][correct]") {
  const TempDir dir;
  write_row(dir);
  // Without red or blue, what is left lies in one plane.
  put_text(dir / "row.csv",
           "name,srgb.r,srgb.g,srgb.b\nwhite,250,240,235\npale,250,240,235\nred,200,30,40\n"
           "blue,30,60,180\n");
  const std::string line =
      "correct row.png --known row.csv --sample white=1,1,8,4 --sample pale=1,5,8,4 --sample "
      "red=11,1,8,8 --sample blue=31,1,8,8 -o out.png ";
  const json found = summary_of(run_tool(dir, words_of(line + "--summary json")))["inputs"][0];
  CHECK(found["patches"][0].contains("left_out"));
  CHECK_FALSE(found["patches"][2].contains("left_out"));
  CHECK_FALSE(found["patches"][3].contains("left_out"));
  CHECK(found["left_out"]["max"].get<double>() < 0.01);
}

TEST_CASE("a patch that is cut off is not used", "[cli][correct]") {
  const TempDir dir;
  write_row(dir, 255);
  const Outcome run = run_tool(dir, words_of(kRow + "--sample gray=41,1,8,8 -o out.png"));
  CHECK(run.exit_code == 0);
  CHECK_THAT(run.err, Catch::Contains("row.png: 100 % of the patch 'white' are at full scale, so "
                                      "that its color is cut off; it is not used"));
  check_error(run_tool(dir, words_of(kRow + "-q -o out2.png")), 1,
              "row.png: has 3 patches to correct by, and it takes 4; add patches of known color");
  CHECK_FALSE(dir.files().contains("out2.png"));
  // Floats are not cut off at the end of their usual range.
  summary_of(run_tool(dir, words_of("convert row.png --to srgb --depth float -o row.tif "
                                    "--summary json")));
  const json floats = summary_of(run_tool(
      dir, words_of("correct row.tif --known row.csv --sample white=1,1,8,8 --sample red=11,1,8,8 "
                    "--sample green=21,1,8,8 --sample blue=31,1,8,8 -o f.tif --summary json")));
  CHECK(floats["inputs"][0]["patches"][0]["used"] == true);
}

TEST_CASE("known colors may come from a spreadsheet", "[cli][correct]") {
  const TempDir dir;
  write_row(dir);
  put_text(
      dir / "saved.csv",
      "\xEF\xBB\xBFname;srgb.r;srgb.g;srgb.b;note\r\nwhite;250,0;240;235;\r\nred;200;30;40;\r\n"
      "green;40;160;60;\r\nblue;30;60;180;\r\ngray;120;120;110;\r\n;;;;\r\n");
  const std::string patches =
      " --sample white=1,1,8,8 --sample red=11,1,8,8 --sample green=21,1,8,8 "
      "--sample blue=31,1,8,8 --save ";
  for (const std::string table : {"row", "saved"})
    REQUIRE(run_tool(dir, words_of("correct row.png --known " + table + ".csv" + patches + table +
                                   ".json -o " + table + ".out.png"))
                .exit_code == 0);
  CHECK(text_of_file(dir / "saved.json") == text_of_file(dir / "row.json"));
  CHECK(text_of_file(dir / "saved.out.png") == text_of_file(dir / "row.out.png"));
}

TEST_CASE("correct refuses what it cannot use, and leaves nothing", "[cli][correct]") {
  const TempDir dir;
  write_row(dir);
  put_text(dir / "unknown.csv", "name,lab.l,lab.a,lab.b\nwhite,95,0,1\n");
  put_text(dir / "twice.csv", "name,lab.l,lab.a,lab.b\nwhite,95,0,1\nwhite,95,0,1\n");
  put_text(dir / "word.csv", "name,lab.l,lab.a,lab.b\nwhite,95,0,none\n");
  put_text(dir / "nameless.csv", "name,lab.l,lab.a,lab.b\n,95,0,1\n");
  put_text(dir / "header.csv", "patch,lab.l,lab.a,lab.b\nwhite,95,0,1\n");
  put_text(dir / "channel.csv", "name,lab.x,lab.a,lab.b\nwhite,95,0,1\n");
  put_text(dir / "mixed.csv", "name,lab.l,lab.b,lab.a\nwhite,95,0,1\n");
  put_text(dir / "empty.csv", "");
  put_text(
      dir / "later.json",
      R"({"chalcedony":"correction","version":3,"of":"xyz-d50","matrix":[[1,0,0],[0,1,0],[0,0,1]]})");
  put_text(
      dir / "falling.json",
      R"({"chalcedony":"correction","version":2,"of":"xyz-d50","tone":[-2,0,0],"matrix":[[1,0,0],[0,1,0],[0,0,1]]})");
  put_text(
      dir / "flat.json",
      R"({"chalcedony":"correction","version":1,"of":"xyz-d50","matrix":[[1,0,0],[1,0,0],[0,0,1]]})");
  put_text(dir / "short.json",
           R"({"chalcedony":"correction","version":1,"of":"xyz-d50","matrix":[[1,0,0]]})");
  put_text(dir / "other.json", R"({"chalcedony":"curves"})");
  write_picture(dir / "gray.png", spec_of(20, 10, 1), bytes_of(random_bytes(200)));
  PictureSpec hsv = spec_of(20, 10, 3);
  hsv.space = &spaces::kHsv;
  write_picture(dir / "hsv.png", hsv, bytes_of(random_bytes(600)));
  write_rgb(dir / "grays.png", 40, 10, std::vector<std::uint8_t>(1200, 99));
  const auto before = dir.files();
  const auto known = [](const std::string& file) {
    return "correct row.png --sample white=1,1,8,8 --known " + file + " -o out.png";
  };
  const std::string header = "begin it with a line like name,lab.l,lab.a,lab.b";
  const std::vector<std::tuple<std::string, int, std::string>> mistakes{
      {"correct row.png -o out.png", 2,
       "correct needs patches and --known, or --apply; say where the patches are"},
      {"correct row.png gray.png --sample a=1,1,2 --known row.csv -o out/", 2,
       "patches are on one picture; --save the correction it takes, and --apply that"},
      {"correct row.png --apply flat.json --save x.json -o out.png", 2,
       "--apply takes the correction from a file"},
      {known("unknown.csv") + " --sample blue=31,1,8,8", 1,
       "unknown.csv: does not know the color of the patch 'blue'; add a line for it"},
      {known("twice.csv"), 1, "twice.csv: has 'white' twice; leave one of them out"},
      {known("word.csv"), 1, "word.csv: has 'none' as a value of 'white'; write it as a number"},
      {known("nameless.csv"), 1, "nameless.csv: has a color without a name; name each as"},
      {known("header.csv"), 1, "header.csv: is no table of known colors; " + header},
      {known("channel.csv"), 1, "channel.csv: is no table of known colors: no channel is called"},
      {known("mixed.csv"), 1,
       "mixed.csv: has no three channels of one space behind the names; " + header},
      {known("empty.csv"), 1, "empty.csv: is no table of known colors; it is empty"},
      {known("gray.png"), 1, "gray.png: is no table; give a CSV file, which is text"},
      {known("row.csv") + " --region 20,0,10,10", 1,
       "--sample: the patch 'white' has no pixel that counts; draw it larger, or leave it out"},
      {"correct row.png --apply later.json -o out.png", 1,
       "later.json: holds a correction of a later version than this program reads, 2"},
      {"correct row.png --apply falling.json -o out.png", 1,
       "falling.json: holds a tone curve that does not rise; give a file written by"},
      {kRow + "--sample gray=41,1,8,8 --tone -o out.png", 1,
       "row.png: has 5 patches to correct by, and it takes 8; add patches of known color"},
      {"correct row.png --apply flat.json --tone -o out.png", 2,
       "--apply takes the correction from a file"},
      {"correct row.png --apply flat.json -o out.png", 1,
       "flat.json: holds a matrix that takes different colors for one; give a file written by"},
      {"correct row.png --apply short.json -o out.png", 1,
       "short.json: cannot be read as a color correction; give a file written by"},
      {"correct row.png --apply other.json -o out.png", 1,
       "other.json: is not a color correction; give a file written by"},
      {"correct gray.png --apply flat.json -o out.png", 1,
       "gray.png: is gray, and correct works on colors; leave it out"},
      {"correct hsv.png --apply flat.json -o out.png", 1,
       "hsv.png: holds hsv, and correct works on RGB; convert it first"},
      {"correct grays.png --known row.csv --sample white=1,1,8,8 --sample red=11,1,8,8 --sample "
       "green=21,1,8,8 --sample blue=31,1,8,8 -o out.png",
       1, "grays.png: the colors of the patches lie in one plane, as grays alone do"}};
  for (const auto& [line, code, says] : mistakes) {
    INFO(line);
    check_error(run_tool(dir, words_of(line)), code, says);
    CHECK(dir.files() == before);
  }
}
