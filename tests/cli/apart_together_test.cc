// `apart` of several pictures together.
#include <array>
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>
#include <string>
#include <vector>

#include "tests/support/outcome.h"
#include "tests/support/panes.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

constexpr std::uint32_t kPaneAcross = 40, kPaneDown = 24;
const std::vector<LegendEntry> kRustAndMoss{{1, "rust", "#b04030"}, {2, "moss", "#408040"}};

struct Pane {
  std::vector<std::uint8_t> rgb, labels;
};

/// Two classes of noisy colors side by side, `light` brighter than they are.
Pane pane_of(int light, unsigned seed) {
  const std::array<std::array<int, 3>, 2> colors{{{120, 70, 50}, {70, 110, 80}}};
  const auto noise = random_bytes(kPaneAcross * kPaneDown * 3, seed);
  Pane pane;
  for (std::size_t i = 0; i < kPaneAcross * kPaneDown; ++i) {
    const std::size_t half = i % kPaneAcross / (kPaneAcross / 2);
    for (std::size_t c = 0; c < 3; ++c)
      pane.rgb.push_back(
          static_cast<std::uint8_t>(colors[half][c] + light + noise[3 * i + c] % 21 - 10));
    pane.labels.push_back(static_cast<std::uint8_t>(half + 1));
  }
  return pane;
}

void write_pane(const TempDir& dir, const std::string& name, const Pane& pane,
                const std::vector<LegendEntry>& classes = kRustAndMoss) {
  write_rgb(dir / (name + ".png"), kPaneAcross,
            static_cast<std::uint32_t>(pane.rgb.size()) / 3 / kPaneAcross, pane.rgb);
  write_labels(dir / (name + ".classes.png"), kPaneAcross, pane.labels, classes);
}

/// Three of them in different light.
void write_three_lights(const TempDir& dir) {
  for (int i = 0; i < 3; ++i)
    write_pane(dir, "p" + std::to_string(i), pane_of(14 * i, static_cast<unsigned>(i + 1)));
}

const Words kThree =
    words_of("apart p0.png p1.png p2.png --classes *.classes.png --summary json --figures svg");

Words three_into(const std::string& folder, const Words& more = {}) {
  return with(with(kThree, {"-o", folder}), more);
}

json channel_in(const json& apart, const std::string& name) {
  for (const json& one : apart["channels"])
    if (one["channel"] == name) return one;
  return {};
}

}  // namespace

TEST_CASE("several pictures together are what one picture of all their pixels is",
          "[cli][apart][together]") {
  const TempDir dir;
  write_three_lights(dir);
  const json run = summary_of(run_tool(dir, three_into("out")));
  const json& together = run["together"];
  CHECK(together["pictures"] == 3);
  Pane tall;
  for (int i = 0; i < 3; ++i) {
    const Pane one = pane_of(14 * i, static_cast<unsigned>(i + 1));
    tall.rgb.insert(tall.rgb.end(), one.rgb.begin(), one.rgb.end());
    tall.labels.insert(tall.labels.end(), one.labels.begin(), one.labels.end());
  }
  write_pane(dir, "tall", tall);
  const json alone = summary_of(
      run_tool(dir, words_of("apart tall.png --classes tall.classes.png -o tall --summary json")));
  json channels = together["channels"], classes = together["classes"];
  for (json& one : channels) {
    double sum = 0;
    for (const json& input : run["inputs"])
      sum += channel_in(input, one["channel"])["overlap_percent"].get<double>();
    CHECK(one["of_each_percent"].get<double>() == Approx(sum / 3));
    one.erase("of_each_percent");
  }
  for (json& one : classes)
    for (const char* range : {"lowest_percent", "lowest_file", "highest_percent", "highest_file"})
      CHECK(one["best"].erase(range) == 1);
  CHECK(channels == alone["inputs"][0]["channels"]);
  CHECK(classes == alone["inputs"][0]["classes"]);
  CHECK(text_of_file(dir / "out/apart.csv") == text_of_file(dir / "tall/tall.intervals.csv"));
  // What the light changes overlaps more in all of them than in each, what it leaves alone not.
  const json lightness = channel_in(together, "lab.l"), green = channel_in(together, "lab.a");
  CHECK(lightness["overlap_percent"] > 2 * lightness["of_each_percent"].get<double>());
  CHECK(green["overlap_percent"] < green["of_each_percent"].get<double>() + 5);
  CHECK_THAT(text_of_file(dir / "out/apart.figure.svg"),
             Catch::Contains("Classes of 3 pictures") && Catch::Contains(", in each "));
}

TEST_CASE("the interval of all pictures takes of each what is said", "[cli][apart][together]") {
  const TempDir dir;
  write_three_lights(dir);
  const json run = summary_of(run_tool(dir, three_into("out", {"--channels", "lab.l,hsv.s"})));
  for (const json& one : run["together"]["classes"]) {
    const json& best = one["best"];
    for (const std::string which : {"lowest", "highest"}) {
      const auto file = best[which + "_file"].get<std::string>();
      const json taken = summary_of(
          run_tool(dir, {"mask", file, "--where", best["where"], "--within",
                         file.substr(0, 2) + ".classes.png:" + one["name"].get<std::string>(),
                         "--summary", "json"}));
      CHECK(taken["inputs"][0]["selected_percent"].get<double>() ==
            Approx(best[which + "_percent"].get<double>()).margin(0.3));
    }
    CHECK(best["lowest_percent"] < best["highest_percent"]);
  }
  const json sliced = summary_of(
      run_tool(dir, words_of("slice p1.png --config out/apart.yaml -o maps --summary json")));
  CHECK(sliced["selections"].size() == 2);
  const Outcome said =
      run_tool(dir, words_of("apart p0.png p1.png --classes *.classes.png -o said --figures none"));
  CHECK_THAT(said.out,
             Catch::Contains("all 2 pictures: 2 classes\n") && Catch::Contains("in each picture") &&
                 Catch::Contains("least of the class") &&
                 Catch::EndsWith("give said/apart.yaml to slice with --config for a class "
                                 "map, or to tune to see and change it\n"));
  CHECK_FALSE(std::filesystem::exists(dir / "said/apart.figure.png"));
}

TEST_CASE("classes of one name are one class, in whichever pictures they are",
          "[cli][apart][together]") {
  const TempDir dir;
  write_pane(dir, "p0", pane_of(0, 1));
  write_pane(dir, "p1", pane_of(0, 2), {{1, "Moss", "#000000"}, {2, "slate", "#5060a0"}});
  const json together = summary_of(run_tool(
      dir, words_of("apart p0.png p1.png --classes *.classes.png --summary json")))["together"];
  REQUIRE(together["classes"].size() == 3);
  const std::array<const char*, 3> names{"rust", "moss", "slate"};
  const std::array<std::size_t, 3> parts{1, 2, 1};
  for (std::size_t c = 0; c < 3; ++c) {
    CHECK(together["classes"][c]["name"] == names[c]);
    CHECK(together["classes"][c]["pixels"] == parts[c] * kPaneAcross * kPaneDown / 2);
  }
  CHECK(together["classes"][1]["color"] == "#408040");
  // What is rust in one and moss in the other is told apart by nothing.
  CHECK(together["channels"][0]["most_alike"]["overlap_percent"] > 40);
}

TEST_CASE("pictures together are the same of shards, after a stop and without tables",
          "[cli][apart][together][shards]") {
  const TempDir dir;
  write_three_lights(dir);
  const Words warmth{"--let", "warmth=lab.a + lab.b", "--channels", "warmth,lab.l", "-q"};
  const json whole = summary_of(run_tool(dir, three_into("one", warmth)));
  CHECK_THAT(text_of_file(dir / "one/apart.yaml"), Catch::Contains("let: "));
  for (const std::string part : {"1", "2"})
    REQUIRE(
        run_tool(dir, three_into("s" + part, with(warmth, {"--shard", part + "/2"}))).exit_code ==
        0);
  CHECK_FALSE(std::filesystem::exists(dir / "s1/apart.yaml"));
  const json gathered =
      summary_of(run_tool(dir, words_of("gather s1 s2 -o all --summary json")))["runs"][0];
  CHECK(gathered["together"] == whole["together"]);
  CHECK(contents_of(dir / "all") == contents_of(dir / "one"));
  CHECK_THAT(run_tool(dir, words_of("gather s1 s2 -o all")).out,
             Catch::Contains("all 3 pictures: 2 classes\n"));
  // A picture that comes later joins those that were counted before.
  std::filesystem::rename(dir / "p1.png", dir / "away.png");
  run_tool(dir, three_into("later", with(warmth, {"--skip-bad"})));
  std::filesystem::rename(dir / "away.png", dir / "p1.png");
  CHECK(summary_of(run_tool(dir, three_into("later", with(warmth, {"--resume"}))))["together"] ==
        whole["together"]);
  CHECK(text_of_file(dir / "later/apart.yaml") == text_of_file(dir / "one/apart.yaml"));
  // Without tables, and without a folder, the counts are kept.
  for (const Words& more : {Words{"-o", "few", "--write", "selections"}, Words{}})
    CHECK(summary_of(run_tool(dir, with(with(kThree, warmth), more)))["together"] ==
          whole["together"]);
  CHECK(text_of_file(dir / "few/apart.yaml") == text_of_file(dir / "one/apart.yaml"));
}

TEST_CASE("a picture that does not fit is left out of what is said of all, and told",
          "[cli][apart][together]") {
  const TempDir dir;
  write_three_lights(dir);
  const auto check_left_out = [&](const Words& run, const std::string& why) {
    const Outcome outcome = run_tool(dir, run);
    CHECK(outcome.exit_code == 0);
    CHECK_THAT(outcome.err,
               Catch::Contains("p1.png is left out of what is said of all pictures: " + why));
    CHECK(json::parse(outcome.out)["together"]["pictures"] == 2);
  };
  // Deep pictures have other codes.
  REQUIRE(run_tool(dir, words_of("convert p1.png --to srgb --depth 16 -o p1.tif")).exit_code == 0);
  std::filesystem::rename(dir / "p1.png", dir / "p1.8.png");
  std::filesystem::rename(dir / "p1.tif", dir / "p1.png");
  check_left_out(with(kThree, {"--channels", "file.0", "-o", "deep"}),
                 "other channels or bins than those of the first");
  std::filesystem::rename(dir / "p1.8.png", dir / "p1.png");
  REQUIRE(run_tool(dir, three_into("out")).exit_code == 0);
  std::string table = text_of_file(dir / "out/p1.class-histogram.csv");
  table.replace(table.find("rust"), 4, "rusk");
  put_text(dir / "out/p1.class-histogram.csv", table);
  check_left_out(three_into("out", {"--resume"}),
                 "out/p1.class-histogram.csv: is not as it was written, in line 2; make it anew");
  // Of pictures that were done without their tables nothing is known.
  const Words without = with(kThree, {"-o", "few", "--write", "selections", "--resume"});
  CHECK(summary_of(run_tool(dir, without))["together"]["pictures"] == 3);
  const Outcome again = run_tool(dir, without);
  CHECK_THAT(again.err, Catch::Contains("p0.png and 2 more are left out of what is said of all "
                                        "pictures: no class-histogram.csv"));
  CHECK_FALSE(json::parse(again.out).contains("together"));
}
