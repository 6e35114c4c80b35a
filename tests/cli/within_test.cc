// Masks and class maps that say which pixels count, one for each of several pictures, at the built
// program.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "tests/support/glass_maps.h"
#include "tests/support/outcome.h"
#include "tests/support/panes.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

constexpr std::uint8_t kOn = 255;

/// A row of five pixels of any color, and a mask of the first `on` of them in masks/.
void write_masked(const TempDir& dir, const std::string& stem, std::size_t on) {
  write_rgb(dir / (stem + ".png"), 5, 1, random_bytes(15, static_cast<unsigned>(stem[0])));
  std::vector<std::uint8_t> mask(5);
  std::fill_n(mask.begin(), on, kOn);
  std::filesystem::create_directories(dir / "masks");
  write_labels(dir / ("masks/" + stem + ".mask.png"), 5, mask);
}

/// How many pixels of each picture count.
std::vector<int> counted(const Outcome& run) {
  std::vector<int> counts;
  const json summary = summary_of(run);
  for (const json& input : summary["inputs"]) counts.push_back(input["counted"].get<int>());
  return counts;
}

const Words kInspect{"inspect", "a.png", "b.png", "--figures", "none", "--summary", "json"};

}  // namespace

TEST_CASE("every picture counts within the mask that goes with it", "[cli][within]") {
  const TempDir dir;
  write_masked(dir, "a", 2);
  write_masked(dir, "b", 4);
  // A result that lies beside the masks is none of them.
  write_rgb(dir / "masks/a.cutout.png", 5, 1, random_bytes(15));
  CHECK(counted(run_tool(dir, with(kInspect, {"--within", "masks"}))) == std::vector{2, 4});
  CHECK(counted(run_tool(dir, with(kInspect, {"--within", "masks/*.mask.png"}))) ==
        std::vector{2, 4});
  // One mask still is for all.
  CHECK(counted(run_tool(dir, with(kInspect, {"--within", "masks/a.mask.png"}))) ==
        std::vector{2, 2});
  // Of one picture, a folder will do as well.
  CHECK(counted(run_tool(dir, {"inspect", "b.png", "--within", "masks", "--summary", "json"})) ==
        std::vector{4});
}

TEST_CASE("files that a pattern names to go with inputs are no inputs themselves",
          "[cli][within][partners]") {
  const TempDir dir;
  write_masked(dir, "a", 2);
  write_masked(dir, "b", 4);
  std::filesystem::create_directory(dir / "all");
  for (const char* name : {"a", "b"}) {
    std::filesystem::rename(dir / (std::string(name) + ".png"),
                            dir / ("all/" + std::string(name) + ".png"));
    std::filesystem::rename(dir / ("masks/" + std::string(name) + ".mask.png"),
                            dir / ("all/" + std::string(name) + ".mask.png"));
  }
  const Words within{"--within", "all/*.mask.png", "--figures", "none", "--summary", "json"};
  // Of a folder, and of all that a shell named.
  CHECK(counted(run_tool(dir, with({"inspect", "all"}, within))) == std::vector{2, 4});
  CHECK(counted(run_tool(
            dir, with({"inspect", "all/a.mask.png", "all/a.png", "all/b.mask.png", "all/b.png"},
                      within))) == std::vector{2, 4});
  // Classes behind the pattern, and an option of a command.
  for (const char* name : {"a", "b"})
    write_labels(dir / ("all/" + std::string(name) + ".mask.png"), 5, {1, 1, 2, 1, 0},
                 {{1, "leaf", "#408040"}, {2, "stem", "#804020"}});
  CHECK(counted(run_tool(dir, {"inspect", "all", "--within", "all/*.mask.png:leaf", "--summary",
                               "json"})) == std::vector{3, 3});
  const json apart = summary_of(run_tool(dir, {"apart", "all", "--classes", "all/*.mask.png",
                                               "--figures", "none", "--summary", "json"}));
  REQUIRE(apart["inputs"].size() == 2);
  CHECK(apart["together"]["classes"][0]["pixels"] == 6);
}

TEST_CASE("every picture counts within classes of the map that goes with it", "[cli][within]") {
  const TempDir dir;
  write_masked(dir, "a", 0);
  write_masked(dir, "b", 0);
  std::filesystem::create_directory(dir / "maps");
  write_glass(dir / "maps/a.classes.png", 5, {1, 2, 2, 2, 0});
  write_glass(dir / "maps/b.classes.png", 5, {1, 1, 0, 0, 2});
  CHECK(counted(run_tool(dir, with(kInspect, {"--within", "maps:ruby"}))) == std::vector{1, 2});
  CHECK(counted(run_tool(dir, with(kInspect, {"--within", "maps/*.classes.png:ruby,lead"}))) ==
        std::vector{4, 3});
  // A picture beside the map that goes with the input as well lists no classes.
  for (const char* name : {"maps/a.recolored.png", "maps/b.recolored.png"})
    write_rgb(dir / name, 5, 1, random_bytes(15));
  for (const char* name : {"a", "b"})
    std::filesystem::rename(dir / "maps" / (name + std::string(".classes.png")),
                            dir / "maps" / (name + std::string(".clusters.png")));
  CHECK(counted(run_tool(dir, with(kInspect, {"--within", "maps:ruby"}))) == std::vector{1, 2});
}

TEST_CASE("every picture counts within regions that were drawn on it", "[cli][within]") {
  const TempDir dir;
  write_masked(dir, "a", 0);
  write_masked(dir, "b", 0);
  const auto region = [](const std::string& name, int left, int right) {
    const std::string l = std::to_string(left), r = std::to_string(right);
    return R"({"type":"Feature","properties":{"class":")" + name +
           R"("},"geometry":{"type":"Polygon","coordinates":[[[)" + l + ",0],[" + r + ",0],[" + r +
           ",1],[" + l + ",1],[" + l + ",0]]]}}";
  };
  const auto put_regions = [&](const std::string& file, const std::string& features) {
    put_text(dir / file,
             R"({"type":"FeatureCollection","width":5,"height":1,"features":[)" + features + "]}");
  };
  put_regions("a.samples.geojson", region("leaf", 0, 2) + "," + region("vein", 1, 3));
  put_regions("b.samples.geojson", region("leaf", 1, 5));
  CHECK(counted(run_tool(dir, with(kInspect, {"--within", "*.samples.geojson"}))) ==
        std::vector{3, 4});
  CHECK(counted(run_tool(dir, with(kInspect, {"--within", "a.samples.geojson:vein,leaf"}))) ==
        std::vector{3, 3});
  const Words leaf = with(kInspect, {"--within", "*.samples.geojson:leaf", "-o", "out"});
  CHECK(counted(run_tool(dir, leaf)) == std::vector{2, 4});
  // Made again, from a folder that was put elsewhere too.
  const std::string table = text_of_file(dir / "out/a.statistics.csv");
  std::filesystem::create_directory(dir / "else");
  std::filesystem::rename(dir / "out", dir / "else/out");
  std::filesystem::copy(dir / "a.png", dir / "else/a.png");
  std::filesystem::copy(dir / "b.png", dir / "else/b.png");
  std::filesystem::rename(dir / "a.samples.geojson", dir / "else/a.samples.geojson");
  std::filesystem::rename(dir / "b.samples.geojson", dir / "else/b.samples.geojson");
  REQUIRE(run_tool(dir, {"run", "else/out/how.json", "-o", "again"}).exit_code == 0);
  CHECK(text_of_file(dir / "again/a.statistics.csv") == table);
  std::filesystem::rename(dir / "else/a.samples.geojson", dir / "a.samples.geojson");

  const auto refused = [&](const std::string& within, const std::string& message) {
    check_error(run_tool(dir, {"inspect", "a.png", "--within", within, "-o", "no"}), 1, message);
    check_nothing_in(dir, "no");
  };
  refused("a.samples.geojson:laef",
          "a.samples.geojson: has no samples of the class 'laef'; did you mean 'leaf'?");
  put_regions("far.geojson", region("leaf", 1, 6));
  refused("far.geojson", "far.geojson: a sample of class 'leaf' reaches outside the picture");
  write_rgb(dir / "a.png", 4, 1, random_bytes(12));
  refused("a.samples.geojson", "its samples were drawn on a picture of 5x1, this one is 4x1");
  put_text(dir / "a.samples.geojson", "[]");
  refused("a.samples.geojson", "a.samples.geojson: is no GeoJSON FeatureCollection");
}

TEST_CASE("a picture without a mask is named, and the others are done", "[cli][within]") {
  const TempDir dir;
  write_masked(dir, "a", 2);
  write_rgb(dir / "b.png", 5, 1, random_bytes(15));
  const Words inspect = with(kInspect, {"--within", "masks", "-o", "out"});
  Outcome run = run_tool(dir, inspect);
  check_error(run, 1,
              "b.png: no file of masks goes with its name; name the two alike, as pane.mask.png "
              "and pane.png");
  CHECK(json::parse(run.out)["failed"].size() == 1);
  CHECK(std::filesystem::exists(dir / "out/a.statistics.csv"));
  CHECK_FALSE(std::filesystem::exists(dir / "out/b.statistics.csv"));

  std::filesystem::create_directory(dir / "maps");
  for (const char* map : {"maps/a.classes.png", "maps/b.one.png", "maps/b.two.png"})
    write_glass(dir / map, 5, {1, 2, 2, 2, 0});
  run = run_tool(dir, with(kInspect, {"--within", "maps:lead", "-o", "others"}));
  check_error(run, 1,
              "b.png: both maps/b.one.png and maps/b.two.png go with its name; say which with a "
              "pattern, as \"maps/*.one.png\"");
  CHECK_FALSE(std::filesystem::exists(dir / "others/b.statistics.csv"));

  // A file or a folder that is not there, and a pattern that nothing fits, end the run before it
  // begins, whatever the number of inputs.
  check_error(run_tool(dir, with(kInspect, {"--within", "none.png", "-o", "no"})), 1,
              "error: none.png: no such file; check its name and folder");
  check_error(run_tool(dir, with(kInspect, {"--within", "none.png:ruby", "-o", "no"})), 1,
              "error: none.png: no such file; check its name and folder");
  check_error(run_tool(dir, with(kInspect, {"--within", "none/", "-o", "no"})), 1, "none");
  check_error(run_tool(dir, with(kInspect, {"--within", "masks/*.mesk.png", "-o", "no"})), 1,
              "masks/*.mesk.png: no file fits this pattern; check its folder and its ending");
  check_nothing_in(dir, "no");
}

TEST_CASE("resuming knows which mask went with which picture", "[cli][within][resume]") {
  const TempDir dir;
  write_masked(dir, "a", 2);
  write_masked(dir, "b", 4);
  // Results go where the masks are.
  const Words inspect = with(kInspect, {"--within", "masks", "-o", "masks"});
  REQUIRE(counted(run_tool(dir, inspect)) == std::vector{2, 4});
  const Words again = with(inspect, {"--resume"});
  Outcome run = run_tool(dir, again);
  CHECK(run.err.empty());
  CHECK(summary_of(run)["unchanged"] == 2);

  write_masked(dir, "b", 3);
  run = run_tool(dir, again);
  CHECK(summary_of(run)["unchanged"] == 1);
  CHECK(counted(run) == std::vector{2, 3});

  // A picture that comes with its mask leaves the others as they are.
  write_masked(dir, "c", 1);
  run = run_tool(dir, with(again, {"c.png"}));
  CHECK(run.err.empty());
  CHECK(summary_of(run)["unchanged"] == 2);
  CHECK(counted(run) == std::vector{2, 3, 1});

  // A mask that is gone is missed.
  std::filesystem::remove(dir / "masks/a.mask.png");
  check_error(run_tool(dir, again), 1, "a.png: no file of masks goes with its name");
}

TEST_CASE("shards within masks are gathered, and resumed as one run", "[cli][within][shard]") {
  const TempDir dir;
  write_masked(dir, "a", 2);
  write_masked(dir, "b", 4);
  const Words inspect = with(kInspect, {"--within", "masks"});
  REQUIRE(run_tool(dir, with(inspect, {"--shard", "1/2", "-o", "first"})).exit_code == 0);
  REQUIRE(run_tool(dir, with(inspect, {"--shard", "2/2", "-o", "second"})).exit_code == 0);
  REQUIRE(run_tool(dir, {"gather", "first", "second", "-o", "all", "-q"}).exit_code == 0);
  const Outcome run = run_tool(dir, with(inspect, {"-o", "all", "--resume"}));
  CHECK(run.err.empty());
  CHECK(counted(run) == std::vector{2, 4});
  CHECK(summary_of(run)["unchanged"] == 2);
}

TEST_CASE("a run within masks tells which ones it read, and is made again", "[cli][within]") {
  const TempDir dir;
  write_masked(dir, "a", 2);
  write_masked(dir, "b", 4);
  write_masked(dir, "other", 5);
  REQUIRE(run_tool(dir, with(kInspect, {"--within", "masks", "-o", "out"})).exit_code == 0);
  std::vector<std::string> read;  // by pictures
  const json how = json::parse(text_of_file(dir / "out/how.json"));
  CHECK(how["runs"][0]["files"].empty());
  for (const json& input : how["runs"][0]["inputs"])
    read.push_back(input["file"].get<std::string>() + " with " +
                   input["with"][0]["file"].get<std::string>());
  CHECK(read ==
        std::vector<std::string>{"a.png with masks/a.mask.png", "b.png with masks/b.mask.png"});
  REQUIRE(run_tool(dir, {"run", "out/how.json", "-o", "again", "-q"}).exit_code == 0);
  CHECK(contents_of(dir / "again").at("statistics.csv") ==
        contents_of(dir / "out").at("statistics.csv"));
  write_masked(dir, "b", 3);
  check_error(run_tool(dir, {"run", "out/how.json", "-o", "later"}), 1,
              "masks/b.mask.png: is not what it was when the results were made; bring the file "
              "back, or run the command anew");
  check_nothing_in(dir, "later");
}
