// Drives `chalcedony assess`: tables, samples, pictures and what it refuses.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "core/color/css_color.h"
#include "tests/support/glass_maps.h"
#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

/// A larger map that is wrong on every seventh pixel.
void write_wrong_stripes(const TempDir& dir) {
  std::vector<std::uint8_t> map, truth;
  for (unsigned i = 0; i < 90 * 60; ++i) {
    truth.push_back(static_cast<std::uint8_t>(1 + i % 90 / 60));
    map.push_back(static_cast<std::uint8_t>(i % 7 == 0 ? 3 - truth.back() : truth.back()));
  }
  write_glass(dir / "s.classes.png", 90, map);
  write_glass(dir / "truth.png", 90, truth);
}

}  // namespace

TEST_CASE("assess fills the matrix by hand-counted pixels", "[cli][assess]") {
  const TempDir dir;
  write_tiny(dir);
  const Outcome run = run_tool(dir, with(kTiny, {"-o", "out", "--summary", "json"}));
  const json p = summary_of(run)["inputs"][0];
  CHECK_THAT(run.err, Catch::Contains("fewer than 30 reference pixels") &&
                          Catch::Contains("ruby 5, lead 4"));
  CHECK(p["assessed"] == 9);
  CHECK(p["excluded"] == json{{"unlabelled", 1}});
  CHECK(p["matrix"] == json{{3, 1}, {1, 2}, {1, 1}});
  CHECK(p["overall"].get<double>() == Approx(5.0 / 9));
  CHECK(p["classes"][0]["omission"].get<double>() == Approx(2.0 / 5));
  CHECK(p["classes"][0]["commission"].get<double>() == Approx(1.0 / 4));
  CHECK(p["classes"][0]["mapped_share"].get<double>() == Approx(0.5));  // with the unlabelled one
  CHECK(lines_of(dir / "out/matrix.csv") ==
        std::vector<std::string>{"unit,mapped_as,reference_ruby,reference_lead,total",
                                 "pixels,ruby,3,1,4", "pixels,lead,1,2,3",
                                 "pixels,unclassified,1,1,2", "pixels,total,5,4,9",
                                 "share,ruby,0.3333333333333333,0.1111111111111111,"
                                 "0.4444444444444444",
                                 "share,lead,0.1111111111111111,0.2222222222222222,"
                                 "0.3333333333333333",
                                 "share,unclassified,0.1111111111111111,0.1111111111111111,"
                                 "0.2222222222222222",
                                 "share,total,0.5555555555555556,0.4444444444444444,1"});
  CHECK(json::parse(text_of_file(dir / "out/accuracy.json")) == p);
  CHECK(lines_of(dir / "out/accuracy.csv")[0] == "class,measure,value,standard_error,low,high");
  ReadOptions indices;
  indices.palette_indices = true;
  PictureFile errors = open_picture(dir / "out/t.errors.png", indices);
  CHECK(samples_of<std::uint8_t>(errors) ==
        std::vector<std::uint8_t>{1, 1, 1, 4, 3, 1, 1, 2, 2, 0});
  CHECK(errors.facts.legend[3].name == "should be lead");
  for (const char* figure : {"matrix", "accuracy", "errors"})
    CHECK(
        text_of_file(dir / ("out/" + std::string(figure) + ".figure.png")).starts_with("\x89PNG"));
  CHECK(dir.files().count("out/sampled.csv") == 0);
}

TEST_CASE("the legend of errors names what there is, with its share", "[cli][assess]") {
  const TempDir dir;
  write_wrong_stripes(dir);
  const Outcome run = run_tool(dir, {"assess", "s.classes.png", "--reference", "truth.png",
                                     "--figures", "svg", "-o", "out"});
  INFO(run.err);
  REQUIRE(run.exit_code == 0);
  const std::string figure = text_of_file(dir / "out/errors.figure.svg");
  CHECK_THAT(figure, Catch::Contains("right   "));
  CHECK_THAT(figure, Catch::Contains("should be "));
  CHECK_THAT(figure, !Catch::Contains("unclassified"));
}

TEST_CASE("assess draws the same sample for a seed, with any number of threads", "[cli][assess]") {
  const TempDir dir;
  write_wrong_stripes(dir);
  const std::vector<std::string> call{
      "assess", "s.classes.png", "--reference", "truth.png", "--count",
      "80",     "--stratified",  "equal",       "--figures", "none"};
  for (const char* threads : {"1", "2", "5"}) {
    const Outcome run =
        run_tool(dir, with(call, {"--threads", threads, "-o", std::string("t") + threads}));
    INFO(run.err);
    REQUIRE(run.exit_code == 0);
  }
  for (const char* name : {"sampled.csv", "matrix.csv", "accuracy.csv", "s.errors.png"}) {
    CHECK(text_of_file(dir / ("t1/" + std::string(name))) ==
          text_of_file(dir / ("t5/" + std::string(name))));
    CHECK(text_of_file(dir / ("t2/" + std::string(name))) ==
          text_of_file(dir / ("t5/" + std::string(name))));
  }
  // Each listed pixel is in the pictures as listed, and each class of the map gave 40.
  const auto lines = lines_of(dir / "t1/sampled.csv");
  REQUIRE(lines.size() == 81);
  std::map<std::string, int> mapped;
  std::set<std::string> places;
  for (std::size_t i = 1; i < lines.size(); ++i) {
    const auto fields = split(lines[i], ',');
    const unsigned x = static_cast<unsigned>(std::stoul(fields[0])),
                   y = static_cast<unsigned>(std::stoul(fields[1]));
    const bool lead = x >= 60, wrong = (y * 90 + x) % 7 == 0;
    CHECK(fields[3] == (lead ? "lead" : "ruby"));
    CHECK(fields[2] == (lead != wrong ? "lead" : "ruby"));
    ++mapped[fields[2]];
    places.insert(fields[0] + "," + fields[1]);
  }
  CHECK(mapped == std::map<std::string, int>{{"lead", 40}, {"ruby", 40}});
  CHECK(places.size() == 80);
  REQUIRE(run_tool(dir, with(call, {"--seed", "2", "-o", "other"})).exit_code == 0);
  CHECK(text_of_file(dir / "other/sampled.csv") != text_of_file(dir / "t1/sampled.csv"));
}

TEST_CASE("assess draws by count, part, given numbers and on a grid", "[cli][assess]") {
  const TempDir dir;
  write_wrong_stripes(dir);
  const auto drawn = [&](const std::vector<std::string>& how) {
    return summary_of(run_tool(
        dir, with({"assess", "s.classes.png", "--reference", "truth.png", "--summary", "json"},
                  how)))["inputs"][0];
  };
  const json part = drawn({"--fraction", "0.1"});
  CHECK(part["assessed"] == 540);
  CHECK(part["design"] == "random");
  CHECK(part.contains("adjusted_overall"));
  const json given = drawn({"--stratified", "ruby=70,lead=35"});
  CHECK(given["classes"][0]["mapped"] == 70);
  CHECK(given["classes"][1]["mapped"] == 35);
  const json proportional = drawn({"--count", "100", "--stratified", "proportional"});
  const json all = drawn({});
  CHECK(proportional["classes"][0]["mapped"].get<double>() ==
        Approx(100 * all["classes"][0]["mapped_share"].get<double>()).margin(1));
  CHECK(drawn({"--every", "10"})["assessed"] == 9 * 6);
  const json plan = drawn({"--count", "200", "--plan", "5"})["plan"];
  CHECK(plan["half_width"] == 0.05);
  CHECK(plan["random"].get<int>() > 50);
}

TEST_CASE("assess takes labelled regions, flat colors and paired names", "[cli][assess]") {
  const TempDir dir;
  write_tiny(dir);
  // The first row is ruby, three pixels of the second are lead, one pixel lies in both.
  put_text(dir / "spots.geojson", R"({"type":"FeatureCollection","features":[
    {"type":"Feature","properties":{"class":"ruby"},
     "geometry":{"type":"Polygon","coordinates":[[[0,0],[5,0],[5,1],[0,1],[0,0]]]}},
    {"type":"Feature","properties":{"class":"lead"},
     "geometry":{"type":"Polygon","coordinates":[[[0,1],[3,1],[3,2],[0,2],[0,1]]]}},
    {"type":"Feature","properties":{"class":"lead"},"geometry":{"type":"Point","coordinates":[4.5,0.5]}}]})");
  const Outcome spots = run_tool(
      dir, {"assess", "t.classes.png", "--reference", "spots.geojson", "--summary", "json"});
  CHECK(summary_of(spots)["inputs"][0]["matrix"] == json{{4, 0}, {0, 2}, {0, 1}});
  CHECK_THAT(spots.err, Catch::Contains("1 pixels belong to samples of two classes"));

  // Painted in the colors of the map's classes, they are called like them.
  std::vector<std::uint8_t> rgb;
  for (const int label : {1, 1, 1, 2, 1, 2, 2, 1, 2, 2})
    for (const int v : label == 1 ? std::array{0xa0, 0x1c, 0x2e} : std::array{1, 2, 3})
      rgb.push_back(static_cast<std::uint8_t>(v));
  write_rgb(dir / "painted.png", 5, 2, rgb);
  const json painted = summary_of(run_tool(
      dir, {"assess", "t.classes.png", "--reference", "painted.png", "--summary", "json"}));
  CHECK(painted["inputs"][0]["only_in_map"] == json{"lead"});
  CHECK(painted["inputs"][0]["only_in_reference"] == json{"#010203"});
  const json paired =
      summary_of(run_tool(dir, {"assess", "t.classes.png", "--reference", "painted.png", "--match",
                                "lead=#010203", "--summary", "json"}));
  CHECK(paired["inputs"][0]["matched_by"] == "pairs");
  CHECK(paired["inputs"][0]["matrix"] == json{{3, 2}, {1, 2}, {1, 1}});
}

TEST_CASE("assess leaves out the pixels that trained the model", "[cli][assess]") {
  const TempDir dir;
  std::vector<std::uint8_t> rgb;
  for (int i = 0; i < 60 * 30; ++i)
    for (int c = 0; c < 3; ++c) rgb.push_back(c == (i % 60 < 30 ? 0 : 2) ? 200 : 20);
  write_rgb(dir / "p.png", 60, 30, rgb);
  // A sample across the whole left half, and a point.
  put_text(dir / "p.geojson", R"({"type":"FeatureCollection","width":60,"height":30,"features":[
    {"type":"Feature","properties":{"class":"red"},
     "geometry":{"type":"Polygon","coordinates":[[[0,0],[30,0],[30,10],[0,10],[0,0]]]}},
    {"type":"Feature","properties":{"class":"blue","radius":3},
     "geometry":{"type":"Point","coordinates":[45.5,15.5]}}]})");
  REQUIRE(run_tool(dir, {"train", "p.png", "--samples", "p.geojson", "-o", ".", "--write", "model"})
              .exit_code == 0);
  REQUIRE(
      run_tool(dir, {"classify", "p.png", "--model", "model.json", "-o", ".", "--write", "classes"})
          .exit_code == 0);
  const auto left_out = [&](const std::string& map) {
    return summary_of(run_tool(dir, {"assess", map, "--reference", "p.classes.png", "--model",
                                     "model.json", "--summary", "json"}))["inputs"][0];
  };
  const json p = left_out("p.classes.png");
  CHECK(p["trained_on"] == "p.png");
  CHECK(p["excluded"]["trained"] == 300 + 29);
  CHECK(p["assessed"] == 1800 - 329);
  std::filesystem::copy(dir / "p.classes.png", dir / "q.classes.png");
  CHECK(left_out("q.classes.png")["trained_on"] == "");
  CHECK(left_out("q.classes.png")["assessed"] == 1800);
}

TEST_CASE("assess counts in a region or a mask only", "[cli][assess]") {
  const TempDir dir;
  write_tiny(dir);
  const json region = summary_of(
      run_tool(dir, with(kTiny, {"--region", "0,0,5,1", "--summary", "json"})))["inputs"][0];
  CHECK(region["matrix"] == json{{3, 1}, {1, 0}, {0, 0}});
  CHECK(region["excluded"]["outside_region"] == 5);
  std::vector<std::uint8_t> mask(10);
  mask[4] = mask[5] = 255;
  write_picture(dir / "mask.png", spec_of(5, 2, 1), bytes_of(mask));
  const json within = summary_of(
      run_tool(dir, with(kTiny, {"--within", "mask.png", "--summary", "json"})))["inputs"][0];
  CHECK(within["matrix"] == json{{0, 0}, {1, 1}, {0, 0}});
  CHECK(within["excluded"]["outside_mask"] == 8);
}

TEST_CASE("assess works its figures out step by step", "[cli][assess]") {
  const TempDir dir;
  write_wrong_stripes(dir);
  const Outcome run = run_tool(dir, {"assess", "s.classes.png", "--reference", "truth.png",
                                     "--count", "40", "--show", "3", "-o", "out"});
  INFO(run.err);
  REQUIRE(run.exit_code == 0);
  const auto first = split(lines_of(dir / "out/sampled.csv")[1], ',');
  CHECK_THAT(run.out, Catch::Contains("1. pixel " + first[0] + "," + first[1] + ": map " +
                                      first[2] + ", reference " + first[3]));
  CHECK_THAT(run.out, Catch::Contains("  3. pixel") && !Catch::Contains("  4. pixel"));
  // The numbers of the text are those of the table.
  const auto total = split(lines_of(dir / "out/matrix.csv")[4], ',');
  CHECK_THAT(run.out, Catch::Contains("omission = (" + total[2] + " - "));
  const double kappa = json::parse(text_of_file(dir / "out/accuracy.json"))["kappa"];
  char text[16];
  std::snprintf(text, sizeof text, "= %.4f\n", kappa);
  CHECK_THAT(run.out, Catch::Contains(std::string("Step 6.")) && Catch::Contains(text));
}

TEST_CASE("assess refuses what it cannot judge, and leaves nothing", "[cli][assess]") {
  struct Row {
    std::vector<std::string> arguments;
    int code;
    const char* says;
  };
  const std::vector<std::string> out{"-o", "out"};
  const Row rows[] = {
      {{"assess", "t.classes.png"}, 2, "assess needs --reference"},
      {{"assess", "a.png", "b.png", "--reference", "r.png"},
       2,
       "--reference: one file does not go with 2 inputs; name the folder of the files that do, or "
       "a "
       "pattern, as \"panels/*.reference.png\"; of maps of one picture give one, and the others "
       "with --versus"},
      {{"assess", "t.classes.png", "t.png", "--reference", "*.png", "--versus", "u.png"},
       2,
       "--versus: one file does not go with 2 inputs"},
      {with(kTiny, words_of("--versus a --versus b --versus c --versus d --versus e --versus f "
                            "--versus g")),
       2, "--versus: a map is held against 6 others at most, and 7 are given"},
      {with(kTiny, {"--count", "0"}), 2, "--count: '0' is not a whole number from 1"},
      {with(kTiny, {"--fraction", "1.5"}), 2,
       "--fraction: '1.5' is not a number above 0 and at most 1"},
      {with(kTiny, {"--count", "5", "--fraction", "0.5"}), 2,
       "--count and --fraction say the same"},
      {with(kTiny, {"--stratified", "equal"}), 2, "--stratified needs a number of pixels"},
      {with(kTiny, {"--stratified", "evenly", "--count", "5"}), 2,
       "--stratified: 'evenly' is not known"},
      {with(kTiny, {"--stratified", "ruby=5", "--count", "5"}), 2, "already says how many"},
      {with(kTiny, {"--every", "5", "--count", "5"}), 2, "--every is a way to draw of its own"},
      {with(kTiny, {"--match", "ruby"}), 2, "--match: 'ruby' is not NAME=VALUE"},
      {with(kTiny, {"--level", "100"}), 2, "--level: '100' is not a number above 0 and below 100"},
      {with(kTiny, {"--show", "3"}), 2, "--show tells of drawn pixels"},
      {with(kTiny, {"--stratified", "rubi=5", "-o", "out"}), 1,
       "t.classes.png: --stratified: the map has no class 'rubi'; did you mean 'ruby'?"},
      {with(kTiny, {"--stratified", "ruby=0", "-o", "out"}), 1,
       "t.classes.png: no pixel would be drawn"},
      {with(kTiny, {"--every", "100000", "-o", "out"}), 1,
       "t.classes.png: no pixel with a label lies on the grid"},
      {with(kTiny, {"--match", "rubi=lead", "-o", "out"}), 1,
       "--match: the map has no class 'rubi'; did you mean 'ruby'?"},
      {with({"assess", "t.classes.png", "--reference", "small.png"}, out), 1,
       "small.png: is 2x1, the map 5x2"},
      {with({"assess", "t.jpg", "--reference", "truth.png"}, out), 1,
       "t.jpg: is stored lossily, which changes labels"},
      {with({"assess", "t.classes.png", "--reference", "empty.png"}, out), 1,
       "empty.png: no labelled pixel can be assessed"},
      {with({"assess", "t.classes.png", "--reference", "other.png"}, out), 1,
       "map and reference have no class in common"},
      {with({"assess", "t.classes.png", "--reference", "half.png"}, out), 1,
       "half.png: damaged PNG"},
      {with({"assess", "t.classes.png", "--reference", "none.geojson"}, out), 1,
       "none.geojson: no such file"},
      {with(kTiny, {"--model", "none.json", "-o", "out"}), 1, "none.json: no such file"},
      {with(kTiny, {"--versus", "small.png", "-o", "out"}), 1, "small.png: is 2x1, the map 5x2"}};
  for (const Row& row : rows) {
    const TempDir dir;
    write_tiny(dir);
    write_glass(dir / "small.png", 2, {1, 2});
    write_glass(dir / "empty.png", 5, std::vector<std::uint8_t>(10));
    write_glass(dir / "other.png", 5, std::vector<std::uint8_t>(10, 9), {{9, "moss", "#00ff00"}});
    write_rgb(dir / "t.jpg", 5, 2, std::vector<std::uint8_t>(30, 9));
    const std::string truth = text_of_file(dir / "truth.png");
    put_text(dir / "half.png", truth.substr(0, truth.size() - 30));
    const auto before = dir.files();
    INFO(row.says);
    check_error(run_tool(dir, row.arguments), row.code, row.says);
    CHECK(dir.files() == before);
  }
}

TEST_CASE("assess keeps the old tables when the disk is full", "[cli][assess]") {
  const TempDir dir;
  write_wrong_stripes(dir);
  std::filesystem::create_directory(dir / "out");
  put_text(dir / "out/sampled.csv", "old");
  ToolSettings full;
  full.file_limit = 2000;
  check_error(run_tool(dir,
                       {"assess", "s.classes.png", "--reference", "truth.png", "--count", "900",
                        "-o", "out", "--write", "sampled"},
                       full),
              1, "out/sampled.csv: cannot be written");
  CHECK(text_of_file(dir / "out/sampled.csv") == "old");
  CHECK(dir.files().size() == 3);
}

TEST_CASE("what is right is told from what is not assessed", "[cli][assess]") {
  const TempDir dir;
  // Of dark classes a light gray would be easiest to tell, and hardest from the paper.
  std::vector<std::uint8_t> labels(200, 1);
  std::fill_n(labels.begin(), 90, std::uint8_t{2});
  write_labels(dir / "map.png", 20, labels, {{1, "slate", "#303030"}, {2, "moss", "#505a40"}});
  summary_of(run_tool(dir, {"assess", "map.png", "--reference", "map.png", "--region", "0,0,10,10",
                            "-o", "out", "--figures", "none", "--summary", "json"}));
  const nlohmann::json classes = summary_of(run_tool(
      dir, {"inspect", "out/map.errors.png", "--summary", "json"}))["inputs"][0]["classes"];
  REQUIRE(classes[0]["name"] == "right");
  const auto right = css_color(classes[0]["color"].get<std::string>()).in(spaces::kLab);
  CHECK(right[0] < 85);
}
