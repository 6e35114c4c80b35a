// `apart` at the built program.
#include <algorithm>
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "io/text/csv.h"
#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

constexpr std::uint32_t kAcross = 90, kDown = 40;

/// Three classes of noisy colors, from left to right; their map has one row without a class.
void write_three(const TempDir& dir, const std::string& name = "p") {
  const std::array<std::array<int, 3>, 3> colors{{{200, 40, 60}, {60, 150, 70}, {90, 110, 190}}};
  const auto noise = random_bytes(kAcross * kDown * 3);
  std::vector<std::uint8_t> rgb, labels;
  for (std::size_t i = 0; i < kAcross * kDown; ++i) {
    const std::size_t third = i % kAcross / 30;
    for (std::size_t c = 0; c < 3; ++c)
      rgb.push_back(static_cast<std::uint8_t>(colors[third][c] + noise[3 * i + c] % 61 - 30));
    labels.push_back(i < kAcross ? 0 : static_cast<std::uint8_t>(third + 1));
  }
  write_rgb(dir / (name + ".png"), kAcross, kDown, rgb);
  write_labels(dir / (name + ".classes.png"), kAcross, labels,
               {{1, "rust", "#b04030"}, {2, "moss", "#408040"}, {3, "slate", "#5060a0"}});
}

json apart_of(const TempDir& dir, const Words& more) {
  return summary_of(
      run_tool(dir, with({"apart", "p.png", "--classes", "p.classes.png", "--summary", "json"},
                         more)))["inputs"][0];
}

}  // namespace

TEST_CASE("the interval of a class takes what it is said to take", "[cli][apart]") {
  const TempDir dir;
  write_three(dir);
  const json told = apart_of(dir, {"-o", "out", "--figures", "none", "--bins", "64"});
  REQUIRE(told["classes"].size() == 3);
  CHECK(told["classes"][1]["name"] == "moss");
  CHECK(told["classes"][1]["pixels"] == 30 * 39);
  REQUIRE(told["channels"].size() == 6);
  for (std::size_t i = 1; i < 6; ++i)
    CHECK(told["channels"][i]["overlap_percent"].get<double>() >=
          told["channels"][i - 1]["overlap_percent"].get<double>());
  // As a selection it takes that much of the class, and of the others; to what lies on an edge.
  for (const json& one : told["classes"]) {
    const auto name = one["name"].get<std::string>();
    const auto taken_of = [&](const std::string& classes) {
      return summary_of(run_tool(
          dir, {"mask", "p.png", "--where", one["best"]["where"], "--within",
                "p.classes.png:" + classes, "--summary", "json"}))["inputs"][0]["selected_percent"]
          .get<double>();
    };
    std::string others;
    for (const json& other : told["classes"])
      if (other["name"] != name)
        others += (others.empty() ? "" : ",") + other["name"].get<std::string>();
    INFO(one.dump());
    CHECK(taken_of(name) == Approx(one["best"]["own_percent"].get<double>()).margin(0.3));
    CHECK(taken_of(others) == Approx(one["best"]["others_percent"].get<double>()).margin(0.3));
    CHECK(one["best"]["own_percent"].get<double>() > 90);
  }
}

TEST_CASE("intervals of classes are those of a map by slice", "[cli][apart][slice]") {
  const TempDir dir;
  write_three(dir);
  const Words own{"--let", "warmth=lab.a + lab.b", "--channels", "warmth,lab.l,hsv.h"};
  const Outcome said =
      run_tool(dir, with({"apart", "p.png", "--classes", "p.classes.png", "-o", "out"}, own));
  CHECK_THAT(said.out, Catch::EndsWith("give out/p.apart.yaml to slice with --config for a class "
                                       "map, or to tune to see and change it\n"));
  std::vector<json> classes = apart_of(dir, own)["classes"];
  std::stable_sort(classes.begin(), classes.end(), [](const json& a, const json& b) {
    return a["best"]["others_percent"] < b["best"]["others_percent"];
  });
  const json sliced = summary_of(run_tool(
      dir, {"slice", "p.png", "--config", "out/p.apart.yaml", "-o", "out", "--summary", "json"}));
  REQUIRE(sliced["selections"].size() == 3);
  for (std::size_t c = 0; c < 3; ++c) {
    CHECK(sliced["selections"][c]["name"] == classes[c]["name"]);
    CHECK(sliced["selections"][c]["where"] == classes[c]["best"]["where"]);
    CHECK(sliced["selections"][c]["color"] == classes[c]["color"]);
  }
  // By names, the map is right where a class has an interval of its own.
  const json judged = summary_of(run_tool(
      dir, {"assess", "out/p.slices.png", "--reference", "p.classes.png", "--summary", "json"}));
  CHECK(judged["inputs"][0]["overall"].get<double>() > 0.9);
  CHECK(run_tool(dir, {"tune", "p.png", "--config", "out/p.apart.yaml", "-o", "out"}).exit_code ==
        0);
}

TEST_CASE("classes that no interval tells apart are in no file of selections", "[cli][apart]") {
  const TempDir dir;
  write_rgb(dir / "p.png", 4, 1, {9, 9, 9, 9, 9, 9, 9, 9, 9, 9, 9, 9});
  write_labels(dir / "p.classes.png", 4, {1, 2, 1, 2},
               {{1, "a=b", "#b04030"}, {2, "c", "#408040"}});
  REQUIRE(run_tool(dir, {"apart", "p.png", "--classes", "p.classes.png", "-o", "out"}).exit_code ==
          0);
  CHECK_FALSE(std::filesystem::exists(dir / "out/p.apart.yaml"));
  // The = of a name would end it.
  write_rgb(dir / "p.png", 4, 1, {9, 9, 9, 99, 99, 99, 9, 9, 9, 99, 99, 99});
  REQUIRE(run_tool(dir, {"apart", "p.png", "--classes", "p.classes.png", "-o", "out"}).exit_code ==
          0);
  const json sliced = summary_of(
      run_tool(dir, {"slice", "p.png", "--config", "out/p.apart.yaml", "--summary", "json"}));
  CHECK(sliced["selections"][0]["name"] == "a-b");
  CHECK(sliced["inputs"][0]["unclassified"] == 0);
}

TEST_CASE("tables of classes apart hold every class, pair and bin", "[cli][apart]") {
  const TempDir dir;
  write_three(dir);
  const json told = apart_of(dir, {"-o", "out", "--channels", "srgb.r,hsv.h", "--bins", "256"});
  const auto intervals = rows_of(dir / "out/p.intervals.csv"),
             overlaps = rows_of(dir / "out/p.overlaps.csv"),
             counts = rows_of(dir / "out/p.class-histogram.csv");
  CHECK(intervals.size() == 3 * 2);
  CHECK(overlaps.size() == 3 * 2);
  CHECK(counts.size() == 3 * 2 * 257);
  std::uint64_t all = 0;
  double shares = 0;
  for (const auto& row : counts)
    if (row.at("channel") == "srgb.r" && row.at("class") == "rust") {
      all += std::stoull(row.at("count"));
      shares += std::stod(row.at("share_percent"));
    }
  CHECK(all == 30 * 39);
  CHECK(shares == Approx(100));
  double sum = 0;
  for (const auto& row : overlaps)
    if (row.at("channel") == "hsv.h") sum += std::stod(row.at("overlap_percent"));
  const auto hue = std::find_if(told["channels"].begin(), told["channels"].end(),
                                [](const json& one) { return one["channel"] == "hsv.h"; });
  CHECK((*hue)["overlap_percent"].get<double>() == Approx(sum / 3));
  // The red class lies around 0 degrees.
  const auto red = std::find_if(intervals.begin(), intervals.end(), [](const auto& row) {
    return row.at("class") == "rust" && row.at("channel") == "hsv.h";
  });
  CHECK(std::stod(red->at("from")) > std::stod(red->at("to")));
  CHECK(red->at("where") == "hsv.h in " + red->at("from") + ".." + red->at("to"));
  CHECK(open_picture(dir / "out/p.apart.figure.png", {}).info.shape.width == 1280);
  // The same bytes for any number of threads.
  for (const char* threads : {"1", "3"})
    apart_of(dir, {"-o", threads, "--threads", threads, "--figures", "none"});
  for (const char* table : {"p.intervals.csv", "p.overlaps.csv", "p.class-histogram.csv"})
    CHECK(text_of_file(dir / ("1/" + std::string(table))) ==
          text_of_file(dir / ("3/" + std::string(table))));
}

TEST_CASE("classes are samples, or what a mask selects and the rest", "[cli][apart]") {
  const TempDir dir;
  write_three(dir);
  put_text(dir / "p.samples.geojson",
           R"({"type":"FeatureCollection","features":[{"type":"Feature","properties":)"
           R"({"class":"one","color":"#aa2030"},"geometry":{"type":"Point","coordinates":[9,9]}},)"
           R"({"type":"Feature","properties":{"class":"two"},"geometry":{"type":"Point",)"
           R"("coordinates":[70,20]}}]})");
  const Outcome samples = run_tool(dir, {"apart", "p.png", "--classes", "p.samples.geojson",
                                         "--channels", "lab.b", "--summary", "json"});
  const json sampled = summary_of(samples)["inputs"][0];
  CHECK(sampled["classes"][0]["pixels"] == 1);
  CHECK(sampled["classes"][0]["color"] == "#aa2030");
  CHECK(sampled["channels"][0]["overlap_percent"] == 0);
  std::vector<std::uint8_t> mask(kAcross * kDown);
  for (std::size_t i = 0; i < mask.size(); ++i) mask[i] = i % kAcross < 30 ? 255 : 0;
  write_labels(dir / "p.mask.png", kAcross, mask);
  const json masked =
      summary_of(run_tool(dir, {"apart", "p.png", "--classes", "p.mask.png", "--region",
                                "0,0,90,20", "--summary", "json"}))["inputs"][0];
  REQUIRE(masked["classes"].size() == 2);
  CHECK(masked["classes"][0]["name"] == "selected");
  CHECK(masked["classes"][0]["pixels"] == 600);
  CHECK(masked["classes"][1]["name"] == "the rest");
  CHECK(masked["classes"][1]["pixels"] == 1200);
  CHECK(masked["excluded"]["outside_region"] == 1800);
  const std::string text = run_tool(dir, {"apart", "p.png", "--classes", "p.mask.png"}).out;
  CHECK_THAT(text, Catch::StartsWith("p.png by p.mask.png: 2 classes\n") &&
                       Catch::Contains("selected and the rest") &&
                       Catch::Contains("interval that takes it best"));
}

TEST_CASE("a class that no interval takes has none", "[cli][apart]") {
  const TempDir dir;
  // Two grays, of which the hue is missing, beside a red.
  std::vector<std::uint8_t> rgb, labels;
  for (std::size_t i = 0; i < 300; ++i) {
    const bool red = i % 30 < 10;
    const auto gray = static_cast<std::uint8_t>(i % 30 < 20 ? 90 : 200);
    for (const int value : {red ? 200 : gray, red ? 30 : gray, red ? 40 : gray})
      rgb.push_back(static_cast<std::uint8_t>(value));
    labels.push_back(static_cast<std::uint8_t>(1 + i % 30 / 10));
  }
  write_rgb(dir / "p.png", 30, 10, rgb);
  write_labels(dir / "p.classes.png", 30, labels,
               {{1, "red", "#c02030"}, {2, "slate", "#5a5a5a"}, {3, "chalk", "#c8c8c8"}});
  const json hue = apart_of(dir, {"--channels", "hsv.h"});
  CHECK(hue["classes"][0]["best"]["own_percent"] == 100);
  CHECK_FALSE(hue["classes"][1].contains("best"));
  CHECK(hue["channels"][0]["most_alike"]["overlap_percent"] == 100);
  CHECK(apart_of(dir, {"--channels", "hsv.h,hsv.v"})["classes"][1]["best"]["channel"] == "hsv.v");
}

TEST_CASE("every input has the classes that are called after it", "[cli][apart]") {
  const TempDir dir;
  for (const char* name : {"a", "b"}) write_three(dir, name);
  const json run =
      summary_of(run_tool(dir, {"apart", "a.png", "b.png", "--classes", "*.classes.png",
                                "--figures", "none", "-o", "out", "--summary", "json"}));
  CHECK(run["inputs"][1]["classes_from"] == "b.classes.png");
  const auto rows = rows_of(dir / "out/intervals.csv");
  CHECK(rows.size() == 2 * 3 * 6);
  CHECK(rows.back().at("picture") == "b.png");
}

TEST_CASE("apart says what it cannot tell apart, and leaves nothing", "[cli][apart]") {
  const TempDir dir;
  write_three(dir);
  const auto refused = [&](const Words& words, int code, const std::string& says) {
    check_error(run_tool(dir, with(with({"apart", "p.png"}, words), {"-o", "out"})), code, says);
    for (const auto& name : dir.files()) CHECK_THAT(name, !Catch::StartsWith("out/p."));
  };
  refused({}, 2, "apart needs --classes; name a class map or a sample file");
  refused({"--classes", "p.classes.png", "--bins", "1"}, 2,
          "--bins: '1' is not a whole number from 2 to 1024");
  refused({"--classes", "p.classes.png", "--channels", "lab.q"}, 2, "--channels: ");
  refused({"p.classes.png", "--classes", "p.classes.png"}, 2, "--classes");
  refused({"--classes", "none.png"}, 1, "none.png: no such file");
  refused({"--classes", "p.classes.png", "--region", "0,0,20,20"}, 1,
          "p.classes.png: has fewer than two classes with pixels that count; give a map with more, "
          "or check --region and --within");
  write_labels(dir / "small.png", 3, {1, 2, 1}, {{1, "a", "#000000"}, {2, "b", "#ffffff"}});
  refused({"--classes", "small.png"}, 1, "small.png: is 3x1, the picture 90x40");
  std::vector<LegendEntry> many;
  for (unsigned c = 1; c <= 300; ++c) many.push_back({c, "c" + std::to_string(c), "#808080"});
  write_picture(dir / "many.png", class_map_spec({kAcross, kDown}, many),
                bytes_of(std::vector<std::uint16_t>(kAcross * kDown, 7)));
  refused({"--classes", "many.png"}, 1,
          "many.png: has more than 255 classes; give a map with fewer");
}
