// `changes` at the built program: what became of the classes of maps of one place.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "tests/support/other_writers.h"
#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

const std::vector<LegendEntry> kLichenRock{{1, "lichen", "#808000"}, {2, "rock", "#d0d0d0"}};

/// 4 x 2 pixels at three times; the second map has its classes in another order and one more.
void write_times(const TempDir& dir) {
  write_labels(dir / "t1.png", 4, {1, 1, 2, 2, 2, 2, 2, 0}, kLichenRock);
  write_labels(dir / "t2.png", 4, {2, 2, 2, 1, 1, 3, 1, 0},
               {{1, "Rock", "#d0d0d0"}, {2, "lichen", "#808000"}, {3, "moss", "#00aa00"}});
  write_labels(dir / "t3.png", 4, {1, 2, 1, 2, 2, 2, 2, 1}, kLichenRock);
}

/// What is told of the only place.
json changes_told(const TempDir& dir, const Words& words) {
  const json told =
      summary_of(run_tool(dir, with({"changes"}, with(words, {"--summary", "json"}))));
  REQUIRE(told["inputs"].size() == 1);
  CHECK_FALSE(told.contains("together"));
  return told["inputs"][0];
}

}  // namespace

TEST_CASE("changes tells what became of each class, by its name", "[cli][changes]") {
  const TempDir dir;
  write_times(dir);
  const json told = changes_told(dir, {"t1.png", "t2.png", "--pixel-size", "2mm"});
  CHECK(told["counted"] == 8);
  CHECK(told["maps"][0]["classes"][0]["pixels"] == 2);
  CHECK(told["maps"][1]["classes"][0]["pixels"] == 3);
  CHECK(told["maps"][1]["classes"][2]["name"] == "moss");
  CHECK(told["maps"][1]["unclassified"] == 1);
  CHECK_FALSE(told.contains("histories"));
  REQUIRE(told["steps"].size() == 1);
  const json& step = told["steps"][0];
  CHECK(step["from"] == "t1.png");
  CHECK(step["to"] == "t2.png");
  CHECK(step["changed"] == 2);
  CHECK(step["changed_percent"] == 25);
  CHECK(step["changed_area"] == 8);
  const json& rock = step["classes"][1];
  CHECK(rock["name"] == "rock");
  CHECK(rock["before"] == 5);
  CHECK(rock["after"] == 3);
  CHECK(rock["stayed"] == 3);
  CHECK(rock["lost"] == 2);
  CHECK(rock["gained"] == 0);
  CHECK(rock["swapped"] == 0);
  REQUIRE(step["flows"].size() == 2);
  CHECK(step["flows"][0]["from"] == "rock");
  CHECK(step["flows"][0]["to"] == "lichen");
  CHECK(step["flows"][0]["pixels"] == 1);
  CHECK(step["flows"][0]["area"] == 4);
  const Outcome text = run_tool(dir, {"changes", "t1.png", "t2.png", "--pixel-size", "2mm"});
  CHECK_THAT(text.out,
             Catch::StartsWith("2 maps, 8 pixels counted\n"
                               "from t1.png to t2.png: 2 pixels changed, 25 %, 8 mm\u00b2\n") &&
                 Catch::Contains("rock  moss         1  12.50 %"));
  CHECK(dir.files() == std::set<std::string>{"t1.png", "t2.png", "t3.png"});
}

TEST_CASE("of more than two maps changes has every step, all in all, and histories",
          "[cli][changes]") {
  const TempDir dir;
  write_times(dir);
  const json told = changes_told(dir, {"t1.png", "t2.png", "t3.png", "-o", "out"});
  REQUIRE(told["steps"].size() == 3);
  CHECK(told["steps"][2]["from"] == "t1.png");
  CHECK(told["steps"][2]["to"] == "t3.png");
  // Back again at one place, so that less changed than in both steps.
  CHECK(told["steps"][1]["changed"] == 3);
  CHECK(told["steps"][2]["changed"] == 3);
  CHECK(told["histories"].size() == 4);
  const auto histories = rows_of(dir / "out/histories.csv");
  REQUIRE(histories.size() == 6);
  CHECK(histories[0].at("map_1") == "rock");
  CHECK(histories[0].at("map_3") == "rock");
  CHECK(histories[0].at("pixels") == "3");
  std::uint64_t pixels = 0;
  for (const auto& row : histories) pixels += std::stoull(row.at("pixels"));
  CHECK(pixels == 8);
  pixels = 0;
  for (const auto& row : rows_of(dir / "out/changes.csv"))
    if (row.at("from_map") == "t1.png" && row.at("to_map") == "t2.png")
      pixels += std::stoull(row.at("pixels"));
  CHECK(pixels == 8);
  const auto gains = rows_of(dir / "out/gains.csv");
  REQUIRE(gains.size() == 3 * 4);
  CHECK(gains[2].at("class") == "moss");
  CHECK(gains[2].at("gained") == "1");
  CHECK(gains[3].at("class") == "unclassified");
  // Pictures of what changed are class maps: unchanged, then what it became.
  CHECK(labels_in(dir / "out/changed-1.png") == std::vector<std::uint8_t>{1, 1, 2, 1, 1, 4, 1, 1});
  CHECK(labels_in(dir / "out/changed-2.png") == std::vector<std::uint8_t>{1, 3, 1, 1, 1, 3, 1, 2});
  const PictureFile changed = open_picture(dir / "out/changed-1.png", {});
  REQUIRE(changed.facts.legend.size() == 5);
  CHECK(changed.facts.legend[0].name == "unchanged");
  CHECK(changed.facts.legend[3] == LegendEntry{4, "now moss", "#00aa00"});
  CHECK(changed.facts.legend[4].name == "now unclassified");
  for (const char* figure : {"flows", "changed-1", "changed-2"})
    CHECK(std::filesystem::exists(dir / ("out/" + std::string(figure) + ".figure.png")));
  REQUIRE(run_tool(dir, {"run", "out/how.json", "-o", "again/"}).exit_code == 0);
  for (const char* file : {"changes.csv", "gains.csv", "histories.csv", "changed-1.png"})
    CHECK(text_of_file(dir / ("again/" + std::string(file))) ==
          text_of_file(dir / ("out/" + std::string(file))));
}

TEST_CASE("changes counts pixels of a region and a mask only", "[cli][changes]") {
  const TempDir dir;
  write_times(dir);
  const json part = changes_told(dir, {"t1.png", "t2.png", "--region", "2,0,2,2", "-o", "out"});
  CHECK(part["counted"] == 4);
  CHECK(part["excluded"]["outside_region"] == 4);
  CHECK(part["steps"][0]["changed"] == 1);
  CHECK(labels_in(dir / "out/changed.png") == std::vector<std::uint8_t>{0, 0, 2, 1, 0, 0, 1, 1});
  write_labels(dir / "on.png", 4, {255, 0, 0, 0, 0, 255, 0, 0});
  const json within = changes_told(dir, {"t1.png", "t2.png", "--within", "on.png"});
  CHECK(within["counted"] == 2);
  CHECK(within["excluded"]["outside_mask"] == 6);
  CHECK(within["steps"][0]["changed"] == 1);
  write_labels(dir / "off.png", 4, std::vector<std::uint8_t>(8, 0));
  check_error(run_tool(dir, {"changes", "t1.png", "t2.png", "--within", "off.png", "-o", "none"}),
              1, "t1.png: no pixel counts; check --region and --within");
  CHECK_FALSE(std::filesystem::exists(dir / "none"));
}

TEST_CASE("changes of masks are between selected and not", "[cli][changes]") {
  const TempDir dir;
  write_labels(dir / "none.png", 4, {0, 0, 0, 0});
  write_labels(dir / "some.png", 4, {0, 255, 255, 0});
  const json told = changes_told(dir, {"none.png", "some.png"});
  const json& flow = told["steps"][0]["flows"][0];
  CHECK(flow["from"] == "not selected");
  CHECK(flow["to"] == "selected");
  CHECK(flow["percent"] == 50);
  CHECK(told["steps"][0]["classes"].size() == 2);
  // What did not change is told from what does not count, which is white.
  const auto unchanged_color = [&](const Words& words) {
    changes_told(dir, with({"none.png", "some.png", "-o", "out", "--figures", "none"}, words));
    return open_picture(dir / "out/changed.png", {}).facts.legend[0].color;
  };
  CHECK(unchanged_color({}) == "#f2f3f2");
  CHECK(unchanged_color({"--region", "0,0,3,1"}) == "#4b5155");
}

TEST_CASE("changes leaves the same with any number of threads", "[cli][changes]") {
  const TempDir dir;
  constexpr std::uint32_t kWidth = 613;
  std::vector<std::uint8_t> first = random_bytes(kWidth * 400), second = random_bytes(kWidth * 400);
  for (std::size_t i = 0; i < first.size(); ++i) {
    first[i] = first[i] % 3;
    second[i] = second[i] % 7 == 0 ? static_cast<std::uint8_t>(2 - first[i]) : first[i];
  }
  write_labels(dir / "a.png", kWidth, first, kLichenRock);
  write_labels(dir / "b.png", kWidth, second, kLichenRock);
  std::uint64_t changed = 0;
  for (std::size_t i = 0; i < first.size(); ++i) changed += first[i] != second[i];
  for (const char* threads : {"1", "2", "5"}) {
    const json told = changes_told(
        dir, {"a.png", "b.png", "--figures", "none", "--threads", threads, "-o", threads});
    CHECK(told["steps"][0]["changed"] == changed);
    for (const char* file : {"/changes.csv", "/changed.png"})
      CHECK(text_of_file(dir / (threads + std::string(file))) ==
            text_of_file(dir / ("1" + std::string(file))));
  }
}

TEST_CASE("changes refuses what it cannot do, and leaves nothing", "[cli][changes]") {
  const TempDir dir;
  write_times(dir);
  write_labels(dir / "wide.png", 8, {1, 1, 2, 2, 2, 2, 2, 0}, kLichenRock);
  write_labels(dir / "other.png", 4, {1, 1, 1, 1, 1, 1, 1, 1}, {{1, "glass", "#0000ff"}});
  write_labels(dir / "mask.png", 4, {255, 0, 0, 0, 0, 0, 0, 0});
  write_other_tiff(dir / "deep.tif", {.width = 4, .height = 2, .bits = 16},
                   {1, 0, 2, 0, 44, 1, 1, 0, 1, 0, 1, 0, 1, 0, 1, 0});  // 300 is 44 + 256
  const auto before = dir.files();
  const auto refused = [&](const Words& words, int code, const std::string& message) {
    check_error(run_tool(dir, with({"changes"}, with(words, {"-o", "out"}))), code, message);
    CHECK(dir.files() == before);
  };
  refused(
      {"t1.png"}, 2,
      "changes takes 2 to 8 maps of one place, not 1; give them in the order of time, or of many "
      "places those of later times by --then");
  refused({"t1.png", "wide.png"}, 1,
          "wide.png: is 8x1, t1.png is 4x2; give maps of one place, all of one size");
  for (const char* map : {"other.png", "mask.png"})
    refused({"t1.png", map}, 1,
            std::string(map) +
                ": has no class that t1.png has; give maps of the same classes, or masks");
  refused({"t1.png", "deep.tif"}, 1,
          "deep.tif: has the number 300, above 255, and no list of classes; give a class map");
  refused({"t1.png", "t2.png", "--shard", "1/2"}, 2,
          "--resume and --shard need --then here; give the maps of several places");
  refused({"t1.png", "t2.png", "--hue-floor", "3"}, 2, "changes looks at classes, not at colors");
  // Colors of class maps only stand for something.
  check_error(run_tool(dir, {"diff", "t1.png", "t2.png", "-o", "out"}), 1,
              "t1.png: is a class map, and its colors only stand for classes; hold maps against "
              "each other with 'changes'");
  CHECK(dir.files() == before);
}
