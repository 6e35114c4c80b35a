// `tidy` at the built program: steps, what is drawn, tables, and what it refuses.
#include <catch2/catch.hpp>
#include <cmath>
#include <nlohmann/json.hpp>
#include <numbers>

#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/small_regions.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

TEST_CASE("tidy cleans a mask step by step, and it stays a mask", "[cli][tidy]") {
  const TempDir dir;
  write_holed_mask(dir / "m.png");
  const json found = summary_of(run_tool(
      dir, {"tidy", "m.png", "--steps", "fill; drop 2", "-o", "out", "--summary", "json"}));
  const json& picture = found["inputs"][0];
  CHECK(picture["kind"] == "mask");
  CHECK(picture["changed"] == 2);
  CHECK(picture["steps"][0]["step"] == "fill");
  CHECK(picture["steps"][1]["changed"] == 1);
  CHECK(picture["classes"][0]["before"] == 9);
  CHECK(picture["classes"][0]["pixels"] == 9);
  std::vector<std::uint8_t> expected;
  for (const char c : std::string("ooo...ooo...ooo........."))
    expected.push_back(c == 'o' ? 255 : 0);
  CHECK(labels_in(dir / "out/m.tidy.png") == expected);
  CHECK(std::filesystem::exists(dir / "out/m.tidy.figure.png"));
  // What it wrote is a mask to `mask` as well.
  write_rgb(dir / "p.png", 6, 4, std::vector<std::uint8_t>(72, 100));
  const json within = summary_of(run_tool(dir, {"mask", "p.png", "--where", "gray >= 0", "--within",
                                                "out/m.tidy.png", "--summary", "json"}));
  CHECK(within["inputs"][0]["selected"] == 9);
}

TEST_CASE("tidy keeps the classes of a map", "[cli][tidy]") {
  const TempDir dir;
  write_left_right_map(dir / "map.png");
  const json found = summary_of(run_tool(dir, {"tidy", "map.png", "--steps", "majority 1", "-o",
                                               "out", "--figures", "none", "--summary", "json"}));
  CHECK(found["inputs"][0]["kind"] == "class map");
  // Where a box holds as many of both, a pixel stays as it is.
  CHECK(labels_in(dir / "out/map.tidy.png") == labels_in(dir / "map.png"));
  const json wide = summary_of(run_tool(dir, {"tidy", "map.png", "--steps", "majority 9", "-o",
                                              "wide", "--figures", "none", "--summary", "json"}));
  CHECK(wide["inputs"][0]["changed"] == 3);
  CHECK(labels_in(dir / "wide/map.tidy.png") == std::vector<std::uint8_t>(8, 1));
  PictureFile file = open_picture(dir / "out/map.tidy.png", {});
  REQUIRE(file.facts.legend.size() == 2);
  CHECK(file.facts.legend[1].name == "right");
}

TEST_CASE("grains that touch are counted one by one once they are parted", "[cli][tidy]") {
  const TempDir dir;
  constexpr int kWide = 60, kHigh = 30;
  std::vector<std::uint8_t> samples;
  for (int y = 0; y < kHigh; ++y)
    for (int x = 0; x < kWide; ++x) {
      const auto holds = [&](int middle) { return std::hypot(x - middle, y - 15) <= 12; };
      samples.push_back(holds(16) || holds(38) ? 255 : 0);
    }
  write_picture(dir / "grains.png", spec_of(kWide, kHigh, 1), bytes_of(samples));
  const auto regions = [&](const std::string& mask) {
    return summary_of(run_tool(dir, {"measure", mask, "--summary", "json"}))["inputs"][0]["count"]
        .get<int>();
  };
  CHECK(regions("grains.png") == 1);
  const json found = summary_of(
      run_tool(dir, {"tidy", "grains.png", "--steps", "part 3", "-o", "out", "--summary", "json"}));
  CHECK(found["inputs"][0]["steps"][0]["step"] == "part 3");
  CHECK(found["inputs"][0]["steps"][0]["changed"].get<int>() < 14);
  CHECK(regions("out/grains.tidy.png") == 2);
  REQUIRE(run_tool(dir, {"measure", "out/grains.tidy.png", "--pixel-size", "0.5mm", "-o", "out"})
              .exit_code == 0);
  const auto sizes = rows_of(dir / "out/grains.tidy.sizes.csv");
  REQUIRE(sizes.size() == 1);
  CHECK(sizes[0].at("regions") == "2");
  CHECK(sizes[0].at("at_edge") == "0");
  CHECK(std::stod(sizes[0].at("area")) == Approx(std::stod(sizes[0].at("pixels")) / 4));
  CHECK(std::stod(sizes[0].at("mean_area")) == Approx(std::stod(sizes[0].at("area")) / 2));
  const double smaller = std::stod(sizes[0].at("diameter_50"));
  CHECK(smaller == std::stod(sizes[0].at("diameter_10")));
  CHECK(smaller ==
        Approx(std::sqrt(4 / std::numbers::pi * std::stod(sizes[0].at("smallest_area")))));
  CHECK(std::stod(sizes[0].at("diameter_90")) == Approx(12).margin(0.3));  // 24 pixels of 0.5 mm
  // As a step of what is selected, too.
  REQUIRE(run_tool(dir, {"mask", "grains.png", "--where", "gray > 99", "--tidy", "part 3", "-o",
                         "m", "--write", "mask"})
              .exit_code == 0);
  CHECK(labels_in(dir / "m/grains.mask.png") == labels_in(dir / "out/grains.tidy.png"));
  check_error(run_tool(dir, {"tidy", "grains.png", "--steps", "part 0"}), 2,
              "--steps: in the step 'part 0', '0' parts regions everywhere");
}

TEST_CASE("steps of tidy are done to the classes they name", "[cli][tidy]") {
  const TempDir dir;
  write_left_right_map(dir / "map.png");
  const auto tidied = [&](const std::string& steps) {
    REQUIRE(run_tool(dir, {"tidy", "map.png", "--steps", steps, "-o", "out"}).exit_code == 0);
    return labels_in(dir / "out/map.tidy.png");
  };
  CHECK(tidied("drop 9 of right") == std::vector<std::uint8_t>{1, 1, 0, 0, 1, 1, 1, 0});
  CHECK(tidied("drop 9 of right; dilate 1 of left") ==
        std::vector<std::uint8_t>{1, 1, 1, 0, 1, 1, 1, 1});
  check_error(run_tool(dir, {"tidy", "map.png", "--steps", "drop 9 of rigt", "-o", "none"}), 1,
              "map.png: has no class 'rigt' for the step 'drop 9 of rigt'; did you mean 'right'?");
  check_nothing_in(dir, "none");
  write_rgb(dir / "p.png", 2, 1, {1, 1, 1, 200, 200, 200});
  check_error(
      run_tool(dir, {"mask", "p.png", "--where", "gray > 9", "--tidy", "drop 9 of lead"}), 2,
      "--tidy: the step 'drop 9 of lead' names a class, and a mask has none; leave out 'of' "
      "and what follows");
}

TEST_CASE("tidy tells how many pixels of a map have no class now", "[cli][tidy]") {
  const TempDir dir;
  write_left_right_map(dir / "map.png");
  const std::vector<std::string> drop{"tidy", "map.png", "--steps", "drop 4", "-o", "out"};
  const Outcome run = run_tool(dir, drop);
  CHECK_THAT(run.out, Catch::Matches("[^]*unclassified +0 +3 +37.50 %[^]*"));
  const json picture = summary_of(run_tool(dir, with(drop, {"--summary", "json"})))["inputs"][0];
  CHECK(picture["unclassified"]["before"] == 0);
  CHECK(picture["unclassified"]["pixels"] == 3);
  CHECK(picture["unclassified"]["percent"] == 37.5);
  CHECK(labels_in(dir / "out/map.tidy.png") == std::vector<std::uint8_t>{1, 1, 0, 0, 1, 1, 1, 0});
  // A mask has no such pixels: those it does not select are none of its business.
  write_holed_mask(dir / "m.png");
  const Outcome mask = run_tool(dir, {"tidy", "m.png", "--steps", "drop 2", "-o", "out"});
  CHECK(mask.out.find("unclassified") == std::string::npos);
}

TEST_CASE("what classes take after cleaning is a table, and of several maps told together",
          "[cli][tidy]") {
  const TempDir dir;
  write_left_right_map(dir / "a.png");
  write_labels(dir / "b.png", 4, {1, 1, 1, 1, 2, 2, 2, 2},
               {{1, "left", "#c00000"}, {2, "right", "#0000c0"}});
  const std::vector<std::string> drop{"tidy",   "a.png",        "b.png", "--steps",
                                      "drop 4", "--pixel-size", "2mm",   "-o",
                                      "out",    "--figures",    "svg"};
  const Outcome text = run_tool(dir, drop);
  CHECK_THAT(text.out, Catch::Contains("  3      0        0.00 %         0\n") &&
                           Catch::Contains("all 2 pictures: 16 pixels counted\n"));
  const auto rows = rows_of(dir / "out/tidy.csv");
  REQUIRE(rows.size() == 6);
  CHECK(rows[0].at("picture") == "a.png");
  CHECK(rows[0].at("class") == "unclassified");
  CHECK(rows[0].at("pixels") == "3");
  CHECK(rows[2].at("class") == "right");
  CHECK(rows[2].at("color") == "#0000c0");
  CHECK(rows[2].at("before") == "3");
  CHECK(rows[2].at("pixels") == "0");
  CHECK(rows[5].at("share_percent") == "50");
  CHECK(rows[5].at("unit") == "mm");
  CHECK(rows[5].at("area") == "16");
  CHECK(lines_of(dir / "out/a.tidy.csv").size() == 4);
  const json all = summary_of(run_tool(dir, with(drop, {"--summary", "json"})))["together"];
  CHECK(all["unclassified"] == 3);
  CHECK(all["classes"][1]["percent"] == 25);
  CHECK(all["classes"][1]["highest_file"] == "b.png");
  CHECK_THAT(text_of_file(dir / "out/tidy.figure.svg"),
             Catch::Contains("Shares of cleaned classes in 2 pictures"));
  REQUIRE(run_tool(dir, {"report", "out"}).exit_code == 0);
  CHECK_THAT(text_of_file(dir / "out/report.html"),
             Catch::Contains("Shares of the cleaned classes"));
  // What a mask does not select is no class; its bar is not white as in the mask.
  write_holed_mask(dir / "m.png");
  REQUIRE(run_tool(dir, {"tidy", "m.png", "--steps", "fill", "-o", "mask"}).exit_code == 0);
  const auto mask = rows_of(dir / "mask/m.tidy.csv");
  REQUIRE(mask.size() == 1);
  CHECK(mask[0].at("class") == "selected");
  CHECK(mask[0].at("color") == "#5b7f95");
}

TEST_CASE("a mask by color, tidied, comes near the reference again", "[cli][tidy]") {
  const TempDir dir;
  copy_demo(dir, "panel-a.rough.png");
  copy_demo(dir, "panel-a.reference.png");
  run_tool(dir, {"tidy", "panel-a.rough.png", "--steps", "drop 20; fill 20", "-o", "."});
  const auto clean = labels_in(dir / "panel-a.rough.tidy.png");
  const auto reference = labels_in(dir / "panel-a.reference.png");
  std::size_t both = 0, either = 0;
  for (std::size_t i = 0; i < clean.size(); ++i) {
    both += clean[i] && reference[i] == 2;
    either += clean[i] || reference[i] == 2;
  }
  CHECK(static_cast<double>(both) / static_cast<double>(either) > 0.98);
}

TEST_CASE("what is drawn stands in the map after the steps", "[cli][tidy]") {
  const TempDir dir;
  write_left_right_map(dir / "a.classes.png");
  write_left_right_map(dir / "b.classes.png");
  const auto put_regions = [&](const std::string& file, const std::string& name,
                               const std::string& more = "") {
    put_text(dir / file,
             R"({"type":"FeatureCollection","width":4,"height":2,"features":[{"type":"Feature",
      "properties":{"class":")" +
                 name + R"("},"geometry":{"type":"Point","coordinates":[0.5,1.5]}})" + more + "]}");
  };
  put_regions("a.samples.geojson", "moss", R"(,{"type":"Feature","properties":{"class":"left?"},
      "geometry":{"type":"Point","coordinates":[3.5,0.5]}})");
  const Words both{"tidy", "a.classes.png", "b.classes.png", "--drawn", "*.samples.geojson",
                   "-o",   "out",           "--summary",     "json"};
  const Outcome run = run_tool(dir, with(both, {"--steps", "drop 4"}));
  CHECK_THAT(run.err, Catch::Contains("a.samples.geojson: 1 region is a guess, and left out; "
                                      "confirm them on a page of outline"));
  const json told = summary_of(run)["inputs"];
  CHECK(labels_in(dir / "out/a.classes.tidy.png") ==
        std::vector<std::uint8_t>{1, 1, 0, 0, 3, 1, 1, 0});
  CHECK(labels_in(dir / "out/b.classes.tidy.png") ==
        std::vector<std::uint8_t>{1, 1, 0, 0, 1, 1, 1, 0});
  CHECK(told[0]["steps"].back() == json{{"step", "as drawn in a.samples.geojson"}, {"changed", 1}});
  CHECK(told[0]["classes"].back()["name"] == "moss");
  CHECK(told[0]["classes"].back()["before"] == 0);
  CHECK(told[1]["steps"].size() == 1);
  CHECK(std::filesystem::exists(dir / "out/a.classes.tidy.figure.png"));
  // Without steps; what was drawn anew is put in again.
  const Words drawn{"tidy", "a.classes.png", "b.classes.png", "--drawn", "*.samples.geojson",
                    "-o",   "drawn",         "--summary",     "json"};
  REQUIRE(summary_of(run_tool(dir, drawn))["inputs"][0]["changed"] == 1);
  put_regions("a.samples.geojson", "right");
  put_regions("b.samples.geojson", "UNCLASSIFIED");
  const json again = summary_of(run_tool(dir, with(drawn, {"--resume"})));
  CHECK_FALSE(again.contains("unchanged"));  // neither what changed, nor what had none before
  CHECK(labels_in(dir / "drawn/a.classes.tidy.png") ==
        std::vector<std::uint8_t>{1, 1, 2, 2, 2, 1, 1, 2});
  CHECK(labels_in(dir / "drawn/b.classes.tidy.png") ==
        std::vector<std::uint8_t>{1, 1, 2, 2, 0, 1, 1, 2});

  // One file that is named is known by what it was.
  const Words one{"tidy",     "a.classes.png", "--drawn", "a.samples.geojson", "-o", "one",
                  "--resume", "--summary",     "json"};
  run_tool(dir, one);
  CHECK(summary_of(run_tool(dir, one))["unchanged"] == 1);
  put_regions("a.samples.geojson", "left");
  CHECK_FALSE(summary_of(run_tool(dir, one)).contains("unchanged"));

  put_regions("two.geojson", "left", R"(,{"type":"Feature","properties":{"class":"right"},
      "geometry":{"type":"Point","coordinates":[0.5,1.5],"radius":1}})");
  check_error(run_tool(dir, {"tidy", "a.classes.png", "--drawn", "two.geojson", "-o", "no"}), 1,
              "two.geojson: regions of 'left' and 'right' share pixels; draw them apart");
  write_holed_mask(dir / "m.png");
  put_text(dir / "m.geojson", R"({"type":"FeatureCollection","features":[{"type":"Feature",
      "properties":{"class":"moss"},"geometry":{"type":"Point","coordinates":[0.5,0.5]}}]})");
  check_error(run_tool(dir, {"tidy", "m.png", "--drawn", "m.geojson", "-o", "no"}), 1,
              "m.geojson: draws 'moss', and what it is drawn on is a mask; call regions of a mask "
              "selected or unselected");
  check_nothing_in(dir, "no");
}

TEST_CASE("tidy refuses what it cannot do, and leaves nothing", "[cli][tidy]") {
  const TempDir dir;
  write_left_right_map(dir / "map.png");
  write_rgb(dir / "photo.png", 300, 1, random_bytes(900));
  check_error(run_tool(dir, {"tidy", "map.png", "-o", "out"}), 2,
              "tidy needs --steps or --drawn; say what to do");
  check_error(run_tool(dir, {"tidy", "map.png", "--steps", "opn 2", "-o", "out"}), 2,
              "--steps: in the step 'opn 2', 'opn' is no step; did you mean 'open'?");
  check_error(run_tool(dir, {"tidy", "map.png", "--steps", "fill", "--region", "0,0,1,1"}), 2,
              "--region means nothing here");
  check_error(run_tool(dir, {"tidy", "map.png", "--steps", "invert", "-o", "out"}), 1,
              "map.png: is a class map, and 'invert' is for masks");
  check_error(run_tool(dir, {"tidy", "photo.png", "--steps", "fill", "-o", "out"}), 1,
              "holds more than 255 colors");
  check_nothing_in(dir, "out");
}
