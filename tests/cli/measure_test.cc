// `measure` at the built program: tables, outlines, colors, and what it refuses.
#include <catch2/catch.hpp>
#include <cmath>
#include <cstdio>
#include <nlohmann/json.hpp>
#include <numbers>

#include "demo/beads.h"
#include "demo/panel.h"
#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/small_regions.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

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
  for (const char* name : {"a.png", "b.png"}) write_holed_mask(dir / name);
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

TEST_CASE("measure lists the regions of a mask, in units", "[cli][measure]") {
  const TempDir dir;
  write_holed_mask(dir / "m.png");
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
  write_left_right_map(dir / "map.png");
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
    write_holed_mask(dir / ("masks/" + std::string(name)));
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
  write_holed_mask(dir / "masks/q.mask.png");
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
  write_holed_mask(dir / "m.png");
  write_holed_mask(dir / "n.png");
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
