// What classes, groups, slices and selections take of several pictures, at the built program.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

/// A row of ten pixels, so many of them red and the others blue.
void write_part_red(const std::filesystem::path& path, unsigned red) {
  std::vector<std::uint8_t> rgb;
  for (unsigned x = 0; x < 10; ++x)
    for (const int code : x < red ? std::initializer_list<int>{220, 20, 20}
                                  : std::initializer_list<int>{20, 20, 220})
      rgb.push_back(static_cast<std::uint8_t>(code));
  write_rgb(path, 10, 1, rgb);
}

void write_three(const TempDir& dir) {
  write_part_red(dir / "a.png", 2);
  write_part_red(dir / "b.png", 7);
  write_part_red(dir / "c.png", 3);
}

const std::vector<std::string> kSlices{"a.png",   "b.png",      "c.png",   "--channel",    "srgb.r",
                                       "--range", "cold=0..99", "--range", "warm=100..255"};

}  // namespace

TEST_CASE("what classes take of several pictures is told and drawn together", "[cli][classify]") {
  const TempDir dir;
  write_three(dir);
  REQUIRE(run_tool(dir, {"train", "a.png", "--sample", "red=0,0,2,1", "--sample", "blue=2,0,8,1",
                         "-o", "m"})
              .exit_code == 0);
  const std::vector<std::string> classify{"classify",     "a.png",        "b.png",     "c.png",
                                          "--model",      "m/model.json", "--figures", "svg",
                                          "--pixel-size", "2mm"};
  const json all =
      summary_of(run_tool(dir, with(classify, {"-o", "out", "--summary", "json"})))["together"];
  CHECK(all["pictures"] == 3);
  CHECK(all["counted"] == 30);
  CHECK(all["unit"] == "mm");
  const json& red = all["classes"][0];
  CHECK(red["name"] == "red");
  CHECK(red["pixels"] == 12);
  CHECK(red["percent"] == 40);
  CHECK(red["area"] == 48);
  CHECK(red["lowest_percent"] == 20);
  CHECK(red["lowest_file"] == "a.png");
  CHECK(red["highest_percent"] == 70);
  CHECK(red["highest_file"] == "b.png");
  CHECK_THAT(text_of_file(dir / "out/areas.figure.svg"),
             Catch::Contains("Shares of classes in 3 pictures") && Catch::Contains(">b.png<") &&
                 Catch::Contains(">70.0<") && Catch::Contains("red   40.0 %"));
  const Outcome text = run_tool(dir, classify);
  CHECK_THAT(text.out,
             Catch::Contains("all 3 pictures: 30 pixels counted\n") &&
                 Catch::Contains("red        12           40.00 %        48  20.00 % in a.png  "
                                 "70.00 % in b.png\n"));
  CHECK_FALSE(std::filesystem::exists(dir / "areas.figure.svg"));
  // Pictures that were done before are told with the others.
  const json resumed =
      summary_of(run_tool(dir, with(classify, {"-o", "out", "--resume", "--summary", "json"})));
  CHECK(resumed["unchanged"] == 3);
  CHECK(resumed["together"] == all);
  // A shard has no figure of all, and one picture nothing that is of several.
  REQUIRE(run_tool(dir, with(classify, {"-o", "part", "--shard", "1/2"})).exit_code == 0);
  CHECK_FALSE(std::filesystem::exists(dir / "part/areas.figure.svg"));
  const Outcome one = run_tool(dir, {"classify", "a.png", "--model", "m/model.json", "-o", "one",
                                     "--figures", "svg", "--summary", "json"});
  CHECK_FALSE(summary_of(one).contains("together"));
  CHECK_FALSE(std::filesystem::exists(dir / "one/areas.figure.svg"));
}

TEST_CASE("more than 20 pictures have a figure of all, not one of each", "[cli][slice]") {
  const TempDir dir;
  std::vector<std::string> slice{"slice", "--channel", "srgb.r", "--cuts", "0,100,256"};
  for (unsigned i = 0; i < 21; ++i) {
    const std::string name = "p" + std::to_string(i) + ".png";
    write_part_red(dir / name, i % 10);
    slice.push_back(name);
  }
  const Outcome run = run_tool(dir, with(slice, {"-o", "out"}));
  CHECK(run.exit_code == 0);
  CHECK_THAT(run.err, Catch::Contains("no figures of each are drawn"));
  CHECK(std::filesystem::exists(dir / "out/slices.figure.png"));
  CHECK_FALSE(std::filesystem::exists(dir / "out/p0.slices.figure.png"));
  CHECK(std::filesystem::exists(dir / "out/p0.slices.png"));
}

TEST_CASE("slices of several pictures have shares together where they are the same",
          "[cli][slice]") {
  const TempDir dir;
  write_three(dir);
  const json fixed =
      summary_of(run_tool(dir, with({"slice"}, with(kSlices, {"-o", "out", "--summary", "json"}))));
  CHECK(fixed["together"]["classes"][1]["name"] == "warm");
  CHECK(fixed["together"]["classes"][1]["percent"] == 40);
  CHECK(std::filesystem::exists(dir / "out/slices.figure.png"));
  // Parts of as many pixels end elsewhere in each picture.
  write_rgb(dir / "d.png", 3, 1, {1, 0, 0, 2, 0, 0, 3, 0, 0});
  write_rgb(dir / "e.png", 3, 1, {4, 0, 0, 5, 0, 0, 6, 0, 0});
  const json own =
      summary_of(run_tool(dir, {"slice", "d.png", "e.png", "--channel", "srgb.r", "--quantiles",
                                "2", "-o", "own", "--summary", "json"}));
  CHECK_FALSE(own.contains("together"));
  CHECK_FALSE(std::filesystem::exists(dir / "own/slices.figure.png"));
}

TEST_CASE("what is selected in several pictures is told and drawn together", "[cli][mask]") {
  const TempDir dir;
  write_three(dir);
  const std::vector<std::string> mask{"mask",    "a.png",        "b.png",     "c.png",
                                      "--where", "srgb.r > 100", "--figures", "svg"};
  const Outcome text = run_tool(dir, with(mask, {"-o", "out"}));
  CHECK_THAT(text.out, Catch::Contains("all 3 pictures: 12 of 30 counted pixels selected, 40.00 %; "
                                       "from 20.00 % in a.png to 70.00 % in b.png\n"));
  CHECK_THAT(text_of_file(dir / "out/coverage.figure.svg"),
             Catch::Contains("What is selected in 3 pictures") && Catch::Contains(">70.0<"));
}

TEST_CASE("groups of several pictures have shares together", "[cli][cluster]") {
  const TempDir dir;
  write_three(dir);
  const std::vector<std::string> cluster{"cluster", "a.png", "b.png", "c.png",     "--k",
                                         "2",       "-o",    "out",   "--figures", "svg"};
  const json summary = summary_of(run_tool(dir, with(cluster, {"--summary", "json"})));
  const json& together = summary["together"];
  CHECK(together["counted"] == 30);
  CHECK(together["unclassified_percent"] == 0);
  CHECK(together["classes"][0]["pixels"] == 18);  // blue, the larger one
  CHECK(together["classes"][1]["highest_file"] == "b.png");
  CHECK_THAT(text_of_file(dir / "out/clusters.figure.svg"),
             Catch::Contains("Shares of groups in 3 pictures"));
}
