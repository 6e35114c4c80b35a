// `mask --like` with samples of several pictures.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>
#include <string>
#include <vector>

#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/sample_regions.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

constexpr std::uint32_t kLeafAcross = 12, kLeafDown = 8;

/// A noisy picture of which the left half is greenish, as `light` makes it, and the other gray.
std::vector<std::uint8_t> leaf_colors(int light, unsigned seed) {
  const auto noise = random_bytes(3 * kLeafAcross * kLeafDown, seed);
  std::vector<std::uint8_t> rgb;
  for (std::size_t i = 0; i < kLeafAcross * kLeafDown; ++i)
    for (std::size_t c = 0; c < 3; ++c) {
      const int base = i % kLeafAcross >= kLeafAcross / 2 ? 180 : c == 1 ? 120 + light : 60 + light;
      rgb.push_back(static_cast<std::uint8_t>(base + noise[3 * i + c] % 13));
    }
  return rgb;
}

std::string leaf_region(int width, int height) {
  std::string text = region_over(width, height);
  text.replace(text.find("\"red\""), 5, "\"leaf\"");
  return text;
}

/// l0.png to l2.png in different light, with samples of the leaf beside each.
void write_leaves(const TempDir& dir) {
  for (int i = 0; i < 3; ++i) {
    const std::string name = "l" + std::to_string(i);
    write_rgb(dir / (name + ".png"), kLeafAcross, kLeafDown,
              leaf_colors(30 * i, static_cast<unsigned>(i + 1)));
    put_text(dir / (name + ".samples.geojson"), leaf_region(kLeafAcross / 2, kLeafDown));
  }
}

json masked(const TempDir& dir, const Words& words) {
  return summary_of(run_tool(dir, with({"mask"}, with(words, {"--summary", "json"}))));
}

}  // namespace

TEST_CASE("samples of several pictures are those of one picture of all their pixels",
          "[cli][mask][like]") {
  const TempDir dir;
  write_leaves(dir);
  std::vector<std::uint8_t> tall;
  for (int i = 0; i < 3; ++i) {
    const auto one = leaf_colors(30 * i, static_cast<unsigned>(i + 1));
    tall.insert(tall.end(), one.begin(), one.end());
  }
  write_rgb(dir / "tall.png", kLeafAcross, 3 * kLeafDown, tall);
  for (const Words& by : {Words{}, Words{"--by", "gaussian"}, Words{"--channels", "hsv"}}) {
    const json all =
        masked(dir, with({"l0.png", "l1.png", "l2.png", "--like", "*.samples.geojson:leaf"}, by));
    const json alone = masked(dir, with({"tall.png", "--like", "0,0,6,24"}, by));
    for (const char* fact : {"where", "like_pixels", "like_kept_percent"})
      CHECK(all["inputs"][2][fact] == alone["inputs"][0][fact]);
    std::uint64_t selected = 0;
    for (const json& one : all["inputs"]) selected += one["selected"].get<std::uint64_t>();
    CHECK(selected == alone["inputs"][0]["selected"]);
    // Named one by one, in any order of the pictures.
    const json named =
        masked(dir, with({"l2.png", "l0.png", "l1.png", "--like", "l0.samples.geojson:leaf",
                          "--like", "l1.samples.geojson", "--like", "l2.samples.geojson:leaf"},
                         by));
    CHECK(named["inputs"][0]["like_pixels"] == all["inputs"][0]["like_pixels"]);
    if (by.empty()) {
      CHECK(named["inputs"][0]["where"] == all["inputs"][0]["where"]);
    }
  }
}

TEST_CASE("a sample file is of the input that it is called after", "[cli][mask][like]") {
  const TempDir dir;
  write_leaves(dir);
  const json alone = masked(dir, {"l2.png", "--like", "l2.samples.geojson:leaf"});
  const json second = masked(dir, {"l0.png", "l2.png", "--like", "l2.samples.geojson:leaf"});
  CHECK(second["inputs"][0]["where"] == alone["inputs"][0]["where"]);
  CHECK(second["inputs"][1]["selected"] == alone["inputs"][0]["selected"]);
  // What is called after none of them, and bare places, are on the first one.
  std::filesystem::rename(dir / "l2.samples.geojson", dir / "places.geojson");
  for (const char* place : {"places.geojson:leaf", "0,0,6,8"})
    CHECK(masked(dir, {"l2.png", "l0.png", "--like", place})["inputs"][1]["where"] ==
          alone["inputs"][0]["where"]);
  // Not meant is what lies on another one.
  put_text(dir / "l1.samples.geojson", leaf_region(kLeafAcross / 2, kLeafDown));
  const json narrowed =
      masked(dir, {"l2.png", "l1.png", "--like", "0,0,6,8", "--unlike", "l1.samples.geojson:leaf"});
  CHECK(narrowed["inputs"][0]["unlike_pixels"] == 6 * 8);
  CHECK(narrowed["inputs"][0]["unlike_passed_percent"] < 10);
}

TEST_CASE("of a pattern those files count that have the class", "[cli][mask][like]") {
  const TempDir dir;
  write_leaves(dir);
  put_text(dir / "l1.samples.geojson", region_over(4, 4));
  const json found =
      masked(dir, {"l0.png", "l1.png", "l2.png", "--like", "*.samples.geojson:leaf"});
  CHECK(found["inputs"][0]["like_pixels"] == 2 * 6 * 8);
  const auto refused = [&](const std::string& place, const std::string& says) {
    check_error(run_tool(dir, {"mask", "l0.png", "l2.png", "--like", place, "-o", "out"}), 1, says);
    check_nothing_in(dir, "out");
  };
  refused("*.samples.geojson:stone",
          "*.samples.geojson: no file that goes with an input has samples of the class 'stone'; "
          "use one of leaf");
  refused("*.samples.geojson:leav", "samples of the class 'leav'; did you mean 'leaf'?");
  std::filesystem::remove(dir / "l0.samples.geojson");
  std::filesystem::remove(dir / "l2.samples.geojson");
  refused("*.samples.geojson:leaf",
          "*.samples.geojson: no file goes with the name of an input; name the two alike, as "
          "pane.samples.geojson and pane.png");
  refused("*.other.geojson:leaf", "*.other.geojson: no file fits this pattern");
  put_text(dir / "q.samples.geojson", leaf_region(4, 4));
  refused("q*.geojson", "q*.geojson: no file goes with the name of an input");
}

TEST_CASE("when samples of one picture change, the masks of all are made again",
          "[cli][mask][like][resume]") {
  const TempDir dir;
  write_leaves(dir);
  const Words all{"l0.png", "l1.png", "l2.png", "--like", "*.samples.geojson:leaf"};
  const Words run = with(all, {"-o", "out"});
  masked(dir, run);
  CHECK(masked(dir, with(run, {"--resume"}))["unchanged"] == 3);
  const json how = json::parse(text_of_file(dir / "out/how.json"))["runs"][0];
  CHECK(how["options"] == json{{"like", "*.samples.geojson:leaf"}});
  CHECK(how["inputs"][1]["with"][0]["file"] == "l1.samples.geojson");
  put_text(dir / "l2.samples.geojson", leaf_region(2, 2));
  const json again = masked(dir, with(run, {"--resume"}));
  CHECK_FALSE(again.contains("unchanged"));
  CHECK(again["inputs"] == masked(dir, with(all, {"-o", "anew"}))["inputs"]);
  REQUIRE(run_tool(dir, {"run", "out/how.json", "-o", "again"}).exit_code == 0);
  CHECK(bytes_in(dir / "again/l0.mask.png") == bytes_in(dir / "out/l0.mask.png"));
}
