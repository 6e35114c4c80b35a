// `tidy` and `measure` at the built program: steps, tables, outlines, colors, and what they refuse.
#include <catch2/catch.hpp>
#include <cmath>
#include <cstdio>
#include <nlohmann/json.hpp>
#include <numbers>

#include "demo/beads.h"
#include "demo/panel.h"
#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

/// 6 x 4: a 3 x 3 square with a hole, and a speck.
void write_mask(const std::filesystem::path& path) {
  std::vector<std::uint8_t> mask;
  for (const char c : std::string("ooo...o.o...ooo..o......")) mask.push_back(c == 'o' ? 255 : 0);
  write_labels(path, 6, mask);
}

/// 4 x 2: class 1 "left", class 2 "right".
void write_map(const std::filesystem::path& path) {
  write_labels(path, 4, {1, 1, 2, 2, 1, 1, 1, 2},
               {{1, "left", "#c00000"}, {2, "right", "#0000c0"}});
}

}  // namespace

TEST_CASE("tidy cleans a mask step by step, and it stays a mask", "[cli][tidy]") {
  const TempDir dir;
  write_mask(dir / "m.png");
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
  write_map(dir / "map.png");
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

TEST_CASE("measure tells how many beads there are although they touch, and how to part them",
          "[cli][measure]") {
  const TempDir dir;
  copy_demo(dir, "beads.reference.png");
  std::map<std::string, std::size_t> laid;
  for (const demo::Bead& bead : demo::beads()) ++laid[demo::glass_legend()[bead.glass - 1].name];
  const Words count = words_of("measure beads.reference.png --parts -o out --figures svg");
  const json picture = summary_of(run_tool(dir, with(count, {"--summary", "json"})))["inputs"][0];
  REQUIRE(picture["classes"].size() == laid.size());
  for (const json& one : picture["classes"]) {
    const json& parts = one["parts"];
    INFO(one);
    CHECK(one["count"] < laid.at(one["name"]));
    CHECK(parts["regions"] == laid.at(one["name"]));
    CHECK(parts["above"] < parts["part"]);
    CHECK(parts["part"] <= parts["to"]);
  }
  // The steps make of the map what was told.
  const std::string steps = picture["parting"];
  CHECK_THAT(steps, Catch::StartsWith("part ") && !Catch::Contains("of"));
  REQUIRE(run_tool(dir, {"tidy", "beads.reference.png", "--steps", steps, "-o", "out"}).exit_code ==
          0);
  for (const json& one :
       summary_of(run_tool(dir, {"measure", "out/beads.reference.tidy.png", "--summary", "json"}))
           .at("inputs")[0]["classes"])
    CHECK(one["count"] == laid.at(one["name"]));
  // Every number is in the table, the chosen one marked.
  std::map<std::string, int> chosen;
  double above = 0;
  for (const auto& row : rows_of(dir / "out/beads.reference.parts.csv")) {
    const bool again = std::stod(row.at("to")) == above;  // the next range of a class
    CHECK((again || std::stod(row.at("to")) > 10));
    above = std::stod(row.at("above"));
    if (row.at("chosen") == "no") continue;
    ++chosen[row.at("class")];
    CHECK(row.at("regions") == std::to_string(laid.at(row.at("class"))));
  }
  CHECK(chosen == std::map<std::string, int>{{"amber", 1}, {"cobalt", 1}, {"ruby", 1}});
  CHECK_THAT(text_of_file(dir / "out/beads.reference.parts.figure.svg"),
             Catch::Contains("Regions of beads.reference.png, parted at their necks") &&
                 Catch::Contains("parted " + std::to_string(laid.at("ruby"))));
  CHECK_THAT(run_tool(dir, count).out,
             Catch::Matches("[^]*class +regions +parted +for H in pixels\n  ruby +\\d+ +" +
                            std::to_string(laid.at("ruby")) + " +0.50 to [^]*\n  tidy --steps \"" +
                            picture["parting"].get<std::string>() + "\"\n[^]*"));
  check_error(run_tool(dir, with(count, {"--connect", "4"})), 2,
              "--parts means nothing with --connect 4: tidy parts regions that touch at sides or "
              "corners");
}

TEST_CASE("the sizes of regions are drawn class by class", "[cli][measure]") {
  const TempDir dir;
  copy_demo(dir, "panel-a.reference.png");
  REQUIRE(run_tool(dir, {"measure", "panel-a.reference.png", "--pixel-size", "0.5mm", "--figures",
                         "svg", "-o", "out"})
              .exit_code == 0);
  const std::string drawn = text_of_file(dir / "out/panel-a.reference.sizes.figure.svg");
  CHECK_THAT(drawn, Catch::Contains("Sizes of the regions of panel-a.reference.png") &&
                        Catch::Contains("diameter in mm (logarithmic)"));
  for (const auto& row : rows_of(dir / "out/panel-a.reference.sizes.csv")) {
    char median[40];
    std::snprintf(median, sizeof median, "%s, median %.3g mm", row.at("regions").c_str(),
                  std::stod(row.at("diameter_50")));
    CHECK_THAT(drawn, Catch::Contains(median));
  }
  // Of one region there is nothing to tell.
  write_labels(dir / "one.png", 2, {255, 255, 0, 0});
  REQUIRE(run_tool(dir, {"measure", "one.png", "-o", "out"}).exit_code == 0);
  CHECK_FALSE(std::filesystem::exists(dir / "out/one.sizes.figure.png"));
}

TEST_CASE("sizes of several pictures are drawn where their lengths have one unit",
          "[cli][measure]") {
  const TempDir dir;
  for (const char* name : {"a.png", "b.png"}) write_mask(dir / name);
  PictureSpec spec = spec_of(2, 2, 1);
  spec.carried.pixels_per_meter_x = spec.carried.pixels_per_meter_y = 1000;
  write_picture(dir / "c.png", spec, bytes_of(std::vector<std::uint8_t>{255, 0, 0, 0}));
  REQUIRE(run_tool(dir, words_of("measure a.png b.png -o one")).exit_code == 0);
  CHECK(std::filesystem::exists(dir / "one/sizes.figure.png"));
  REQUIRE(run_tool(dir, words_of("measure a.png c.png -o two")).exit_code == 0);
  CHECK(std::filesystem::exists(dir / "two/counts.figure.png"));
  CHECK_FALSE(std::filesystem::exists(dir / "two/sizes.figure.png"));
  REQUIRE(run_tool(dir, words_of("measure a.png c.png --pixel-size 2mm -o three")).exit_code == 0);
  CHECK(std::filesystem::exists(dir / "three/sizes.figure.png"));
}

TEST_CASE("steps of tidy are done to the classes they name", "[cli][tidy]") {
  const TempDir dir;
  write_map(dir / "map.png");
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

TEST_CASE("one H is told for several masks, where one does for all", "[cli][measure]") {
  const TempDir dir;
  const auto write_pair = [&](const std::string& name, double apart, int wide) {
    std::vector<std::uint8_t> samples;
    for (int y = 0; y < 40; ++y)
      for (int x = 0; x < wide; ++x) {
        const auto holds = [&](double middle) { return std::hypot(x - middle, y - 20) <= 14; };
        samples.push_back(holds(18) || holds(18 + apart) ? 255 : 0);
      }
    write_picture(dir / name, spec_of(static_cast<std::uint32_t>(wide), 40, 1), bytes_of(samples));
  };
  write_pair("near.png", 21, 60);
  write_pair("far.png", 26, 70);
  write_pair("one.png", 0, 60);
  write_pair("whole.png", 0, 60);
  const auto together = [&](const Words& inputs) {
    Words words{"measure", "--parts", "--summary", "json", "--figures", "none"};
    return summary_of(run_tool(dir, with(words, inputs)))["together"]["classes"][0]["parts"];
  };
  const json both = together({"near.png", "far.png", "one.png"});
  CHECK(both["regions"] == 5);
  CHECK(both["part"].get<double>() > both["above"].get<double>());
  CHECK(both["part"].get<double>() <= both["to"].get<double>());
  const json alone = together({"one.png", "whole.png"});
  CHECK(alone["regions"] == 2);
  CHECK(alone["part"].is_null());
}

TEST_CASE("tidy tells how many pixels of a map have no class now", "[cli][tidy]") {
  const TempDir dir;
  write_map(dir / "map.png");
  const std::vector<std::string> drop{"tidy", "map.png", "--steps", "drop 4", "-o", "out"};
  const Outcome run = run_tool(dir, drop);
  CHECK_THAT(run.out, Catch::Matches("[^]*unclassified +0 +3 +37.50 %[^]*"));
  const json picture = summary_of(run_tool(dir, with(drop, {"--summary", "json"})))["inputs"][0];
  CHECK(picture["unclassified"]["before"] == 0);
  CHECK(picture["unclassified"]["pixels"] == 3);
  CHECK(picture["unclassified"]["percent"] == 37.5);
  CHECK(labels_in(dir / "out/map.tidy.png") == std::vector<std::uint8_t>{1, 1, 0, 0, 1, 1, 1, 0});
  // A mask has no such pixels: those it does not select are none of its business.
  write_mask(dir / "m.png");
  const Outcome mask = run_tool(dir, {"tidy", "m.png", "--steps", "drop 2", "-o", "out"});
  CHECK(mask.out.find("unclassified") == std::string::npos);
}

TEST_CASE("what classes take after cleaning is a table, and of several maps told together",
          "[cli][tidy]") {
  const TempDir dir;
  write_map(dir / "a.png");
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
  write_mask(dir / "m.png");
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
  write_map(dir / "a.classes.png");
  write_map(dir / "b.classes.png");
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
  check_nothing_in(dir, "no");
}

TEST_CASE("tidy refuses what it cannot do, and leaves nothing", "[cli][tidy]") {
  const TempDir dir;
  write_map(dir / "map.png");
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

TEST_CASE("measure lists the regions of a mask, in units", "[cli][measure]") {
  const TempDir dir;
  write_mask(dir / "m.png");
  const json found = summary_of(run_tool(
      dir, {"measure", "m.png", "--pixel-size", "0.5mm", "-o", "out", "--summary", "json"}));
  const json& picture = found["inputs"][0];
  CHECK(picture["kind"] == "mask");
  CHECK(picture["count"] == 2);
  CHECK(picture["classes"][0]["name"] == "selected");
  CHECK(picture["classes"][0]["area"] == 2.25);
  const json& square = picture["largest_regions"][0];
  CHECK(square["region"] == 1);
  CHECK(square["pixels"] == 8);
  CHECK(square["area"] == 2.0);
  CHECK(square["center"] == json::array({1.5, 1.5}));
  CHECK(square["box"] == json::array({0, 0, 3, 3}));
  CHECK(square["holes"] == 1);
  CHECK(square["at_edge"] == true);
  CHECK(picture["largest_regions"][1]["equivalent_diameter"].get<double>() ==
        Approx(0.5 * std::sqrt(4 / std::numbers::pi)));
  const auto lines = lines_of(dir / "out/m.regions.csv");
  REQUIRE(lines.size() == 3);
  CHECK_THAT(lines[2], Catch::StartsWith("2,selected,1,") && Catch::Contains(",mm,0.25,5.5,2.5,"));
  const json file = json::parse(text_of_file(dir / "out/m.regions.json"));
  CHECK(file.size() == 2);
  CHECK(file[0] == square);
  CHECK(std::filesystem::exists(dir / "out/m.regions.figure.png"));
}

TEST_CASE("measure adds the colors of an image", "[cli][measure]") {
  const TempDir dir;
  write_map(dir / "map.png");
  write_rgb(dir / "p.png", 4, 2, {10, 0, 0, 20, 0, 0, 0,  0, 9, 0, 0, 9,  //
                                  30, 0, 0, 40, 0, 0, 90, 0, 0, 0, 0, 9});
  const json found =
      summary_of(run_tool(dir, {"measure", "map.png", "--image", "p.png", "--channels",
                                "srgb.r,hsv.h", "-o", "out", "--summary", "json"}));
  const json& left = found["inputs"][0]["largest_regions"][0];
  CHECK(left["class"] == "left");
  CHECK(left["channels"][0]["mean"].get<double>() == Approx(38));
  CHECK(left["channels"][0]["median"].get<double>() == Approx(30).margin(0.003));
  CHECK(left["channels"][0]["standard_deviation"].get<double>() ==
        Approx(std::sqrt((28 * 28 + 18 * 18 + 8 * 8 + 2 * 2 + 52 * 52) / 5.0)));
  // Reds lie around 0 degrees, on both sides of it.
  CHECK(std::cos(left["channels"][1]["mean"].get<double>() * std::numbers::pi / 180) == Approx(1));
  CHECK_FALSE(left["channels"][1].contains("median"));
  CHECK(found["inputs"][0]["largest_regions"][1]["mean_color"] == "#000009");
  const json shares =
      summary_of(run_tool(dir, {"measure", "map.png", "--image", "p.png", "--channels", "srgb.r",
                                "--units", "unit", "--summary", "json"}));
  const json& red = shares["inputs"][0]["largest_regions"][0]["channels"][0];
  CHECK(red["unit"] == "0-1");
  CHECK(red["mean"].get<double>() == Approx(38 / 255.0));
  CHECK(red["median"].get<double>() == Approx(30 / 255.0).margin(2e-5));
  CHECK_THAT(lines_of(dir / "out/map.regions.csv")[0],
             Catch::EndsWith("srgb.r_mean,srgb.r_median,srgb.r_spread,hsv.h_mean,hsv.h_median,"
                             "hsv.h_spread,mean_color"));
}

TEST_CASE("outlines train as sample regions with the very pixels", "[cli][measure]") {
  const TempDir dir;
  for (const char* name : {"panel-a.png", "panel-a.reference.png"}) copy_demo(dir, name);
  const json found = summary_of(
      run_tool(dir, {"measure", "panel-a.reference.png", "--connect", "4", "--outlines",
                     "--numbers", "-o", "out", "--figures", "none", "--summary", "json"}));
  const json trained = summary_of(
      run_tool(dir, {"train", "panel-a.png", "--samples", "out/panel-a.reference.outlines.geojson",
                     "--method", "minimum-distance", "--summary", "json"}));
  std::map<std::string, std::uint64_t> pixels;
  for (const json& c : found["inputs"][0]["classes"]) pixels[c["name"]] = c["pixels"];
  CHECK(pixels.size() == 6);
  for (const json& c : trained["inputs"][0]["classes"]) CHECK(c["pixels"] == pixels[c["name"]]);
  PictureFile numbers = open_picture(dir / "out/panel-a.reference.numbers.png", {});
  const auto samples = samples_of<std::uint16_t>(numbers);
  CHECK(*std::max_element(samples.begin(), samples.end()) == found["inputs"][0]["count"]);
}

TEST_CASE("regions of several maps are counted together, as of their shards", "[cli][measure]") {
  const TempDir dir;
  for (const char* panel : {"panel-a.reference.png", "panel-b.reference.png"})
    copy_demo(dir, panel);
  write_picture(dir / "panel-z.png", spec_of(4, 2, 1),
                bytes_of(std::vector<std::uint8_t>{255, 0, 0, 255, 255, 0, 0, 0}));
  const Words all{
      "measure", "panel-a.reference.png", "panel-b.reference.png", "panel-z.png", "--figures",
      "svg"};
  const json found = summary_of(run_tool(dir, with(all, {"-o", "one", "--summary", "json"})));
  const json& together = found["together"];
  CHECK(together["pictures"] == 3);
  int count = 0;
  for (const json& input : found["inputs"]) count += input["count"].get<int>();
  CHECK(together["count"] == count);
  REQUIRE(together["classes"].size() == 7);  // six glasses, and what the mask selects
  const json& ruby = together["classes"][0];
  const auto of = [&](int input) {
    return found["inputs"][input]["classes"][0]["count"].get<int>();
  };
  CHECK(ruby["name"] == "ruby");
  CHECK(ruby["count"] == of(0) + of(1));
  CHECK(ruby["fewest"] == 0);
  CHECK(ruby["fewest_file"] == "panel-z.png");
  CHECK(ruby["most"] == std::max(of(0), of(1)));
  CHECK(together["classes"][6]["name"] == "selected");
  CHECK(together["classes"][6]["count"] == 2);
  const std::string sizes = text_of_file(dir / "one/sizes.figure.svg");
  CHECK_THAT(sizes, Catch::Contains("Sizes of the regions in 3 pictures") &&
                        Catch::Contains("panel-z.png") && Catch::Contains("diameter in px"));
  const std::string drawn = text_of_file(dir / "one/counts.figure.svg");
  CHECK_THAT(drawn, Catch::Contains("Regions in 3 pictures") && Catch::Contains("panel-z.png"));
  for (const char* part : {"1", "2"})
    REQUIRE(run_tool(dir, with(all, {"--shard", std::string(part) + "/2", "-o", part})).exit_code ==
            0);
  const json gathered =
      summary_of(run_tool(dir, {"gather", "1", "2", "-o", "all", "--summary", "json"}));
  CHECK(gathered["runs"][0]["together"] == together);
  CHECK(text_of_file(dir / "all/counts.figure.svg") == drawn);
  CHECK(text_of_file(dir / "all/sizes.figure.svg") == sizes);
  CHECK_THAT(run_tool(dir, with(all, {"-o", "again"})).out,
             Catch::Contains("all 3 pictures: " + std::to_string(count) + " regions\n"));
}

TEST_CASE("regions of several masks take the colors of the pictures they are named after",
          "[cli][measure]") {
  const TempDir dir;
  std::filesystem::create_directories(dir / "shots");
  std::filesystem::create_directories(dir / "masks");
  const auto shade = [&](const std::string& name, std::uint8_t gray) {
    write_rgb(dir / ("shots/" + name), 6, 4, std::vector<std::uint8_t>(72, gray));
  };
  shade("p.png", 50);
  shade("p-2.png", 90);
  shade("p.mask.png", 10);  // another version of the mask, not a picture of it
  for (const char* name : {"p.mask.png", "p-2.mask.png"})
    write_mask(dir / ("masks/" + std::string(name)));
  const auto measure = [&](const std::string& more) {
    return summary_of(
        run_tool(dir, words_of("measure masks --image shots --channels gray --figures none "
                               "-o out --summary json " +
                               more)));
  };
  measure("");
  const auto sizes = rows_of(dir / "out/sizes.csv");
  REQUIRE(sizes.size() == 2);
  CHECK(sizes[0].at("picture") != sizes[1].at("picture"));
  CHECK(sizes[0].at("regions") == sizes[1].at("regions"));
  const auto rows = rows_of(dir / "out/regions.csv");
  REQUIRE(rows.size() >= 2);
  for (const auto& row : rows) {
    const bool second = row.at("picture").find("p-2") != std::string::npos;
    CHECK(std::stod(row.at("gray_mean")) == Approx(second ? 90 : 50));
  }
  // What is done is done until its picture changes.
  CHECK(measure("--resume")["unchanged"] == 2);
  shade("p-2.png", 91);
  CHECK(measure("--resume")["unchanged"] == 1);
  for (const auto& row : rows_of(dir / "out/regions.csv")) {
    const bool second = row.at("picture").find("p-2") != std::string::npos;
    CHECK(std::stod(row.at("gray_mean")) == Approx(second ? 91 : 50));
  }
  write_mask(dir / "masks/q.mask.png");
  const Outcome run = run_tool(dir, words_of("measure masks --image shots -o other"));
  CHECK(run.exit_code == 1);
  CHECK_THAT(run.err,
             Catch::Contains("masks/q.mask.png: no file of shots goes with its name; name the "
                             "two alike, as pane.mask.png and pane.png"));
  CHECK(std::filesystem::exists(dir / "other/p.mask.regions.csv"));
  CHECK_FALSE(std::filesystem::exists(dir / "other/q.mask.regions.csv"));
  shade("q.tif", 50);
  shade("q.png", 50);
  const Outcome both = run_tool(dir, words_of("measure masks --image shots -o both"));
  CHECK(both.exit_code == 1);
  CHECK_THAT(both.err,
             Catch::Contains("masks/q.mask.png: both shots/q.png and shots/q.tif go "
                             "with its name; say which with a pattern, as \"shots/*.png\""));
  // A pattern says which.
  const json one = summary_of(
      run_tool(dir, words_of("measure masks --image shots/*.png --channels gray --figures none "
                             "-o one --summary json")));
  CHECK(one["inputs"].size() == 3);
  CHECK_FALSE(std::filesystem::exists(dir / "both/q.mask.regions.csv"));
}

TEST_CASE("measure refuses what it cannot do, and leaves nothing", "[cli][measure]") {
  const TempDir dir;
  write_mask(dir / "m.png");
  write_mask(dir / "n.png");
  write_rgb(dir / "p.png", 2, 2, std::vector<std::uint8_t>(12));
  check_error(run_tool(dir, {"measure", "m.png", "--image", "p.png", "-o", "out"}), 1,
              "p.png: is 2x2, the regions are of 6x4");
  check_error(run_tool(dir, {"measure", "m.png", "--pixel-size", "0.5"}), 2,
              "--pixel-size: '0.5' has no unit");
  check_error(run_tool(dir, {"measure", "m.png", "--pixel-size", "mm"}), 2, "--pixel-size");
  check_error(run_tool(dir, {"measure", "m.png", "--units", "code"}), 2, "they are of --image");
  check_error(run_tool(dir, {"measure", "m.png", "--let", "w=lab.a + lab.b"}), 2,
              "--let means nothing here: they are of --image");
  check_error(run_tool(dir, {"measure", "m.png", "--channels", "lab"}), 2,
              "--channels means nothing here: they are of --image");
  check_error(
      run_tool(dir, {"measure", "m.png", "n.png", "--image", "p.png"}), 2,
      "--image: one file does not go with 2 inputs; name the folder of the files that do, or a "
      "pattern, as \"panels/*.reference.png\"");
  check_error(run_tool(dir, {"measure", "m.png", "--connect", "6"}), 2, "--connect");
  std::vector<std::uint8_t> deep(2 * 6);
  deep[1] = 3;
  PictureSpec spec = spec_of(3, 2, 1, SampleType::kU16);
  spec.labels = true;
  write_picture(dir / "deep.png", spec, bytes_of(deep));
  check_error(run_tool(dir, {"measure", "deep.png", "-o", "out"}), 1,
              "has the number 768, above 255, and no list of classes");
  check_nothing_in(dir, "out");
}

TEST_CASE("measure takes the resolution of a file for the size of a pixel", "[cli][measure]") {
  const TempDir dir;
  PictureSpec spec = spec_of(20, 10, 3);
  spec.carried.pixels_per_meter_x = spec.carried.pixels_per_meter_y = 2000;  // half a millimeter
  std::vector<std::uint8_t> rgb(600, 20);
  for (std::size_t i = 0; i < 300; ++i) rgb[i] = 200;
  write_picture(dir / "a.png", spec, bytes_of(rgb));
  // The mask of a picture has its resolution, scaled as it is.
  CHECK(run_tool(dir, {"mask", "a.png", "--where", "gray > 100", "--write", "mask", "-o", "out"})
            .exit_code == 0);
  CHECK(run_tool(dir, {"reframe", "out/a.mask.png", "--scale", "2", "-o", "out/twice.png"})
            .exit_code == 0);
  for (const char* mask : {"out/a.mask.png", "out/twice.png"}) {
    const json measured =
        summary_of(run_tool(dir, {"measure", mask, "--summary", "json"}))["inputs"][0];
    CHECK(measured["unit"] == "mm");
    CHECK(measured["pixel_size"]["from"] == mask);
    CHECK(measured["classes"][0]["area"].get<double>() == Approx(100 * 0.25));
  }
  CHECK_THAT(run_tool(dir, {"measure", "out/a.mask.png"}).out,
             Catch::Contains("a pixel is 0.5 mm wide by the resolution of out/a.mask.png"));
  // What is typed wins.
  const json typed = summary_of(run_tool(
      dir, {"measure", "out/a.mask.png", "--pixel-size", "1cm", "--summary", "json"}))["inputs"][0];
  CHECK(typed["unit"] == "cm");
  CHECK_FALSE(typed.contains("pixel_size"));
  // Without one in the mask, that of the picture.
  write_labels(dir / "plain.png", 20, std::vector<std::uint8_t>(200, 255));
  CHECK(summary_of(run_tool(
            dir, {"measure", "plain.png", "--summary", "json"}))["inputs"][0]["unit"] == "px");
  const json by_image = summary_of(run_tool(
      dir, {"measure", "plain.png", "--image", "a.png", "--summary", "json"}))["inputs"][0];
  CHECK(by_image["unit"] == "mm");
  CHECK(by_image["pixel_size"]["from"] == "a.png");
  spec.carried.pixels_per_meter_y = 1000;
  write_picture(dir / "a.png", spec, bytes_of(rgb));
  const auto uneven = run_tool(dir, {"measure", "plain.png", "--image", "a.png"});
  CHECK_THAT(uneven.err, Catch::Contains("a.png: its resolution is not the same across and down"));
}
