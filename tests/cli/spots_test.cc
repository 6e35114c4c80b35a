// `spots` at the built program.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <nlohmann/json.hpp>

#include "core/color/ciede2000.h"
#include "core/color/css_color.h"
#include "io/text/csv.h"
#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

constexpr std::uint32_t kWide = 24, kHigh = 12;

/// Three patches of noise, from left to right, 8 pixels wide each.
std::vector<std::uint8_t> patches(std::array<std::array<int, 3>, 3> colors) {
  const auto noise = random_bytes(kWide * kHigh * 3);
  std::vector<std::uint8_t> rgb;
  for (std::size_t i = 0; i < kWide * kHigh; ++i)
    for (std::size_t c = 0; c < 3; ++c)
      rgb.push_back(
          static_cast<std::uint8_t>(colors[i % kWide / 8][c] + noise[3 * i + c] % 21 - 10));
  return rgb;
}

void write_before_and_after(const TempDir& dir) {
  write_rgb(dir / "a.png", kWide, kHigh,
            patches({{{180, 60, 40}, {60, 90, 170}, {120, 120, 120}}}));
  write_rgb(dir / "b.png", kWide, kHigh,
            patches({{{150, 80, 60}, {60, 90, 170}, {122, 121, 120}}}));
}

const Words kThree{"--sample",    "red=1,1,6,10", "--sample",
                   "blue=12,6,3", "--sample",     "gray=17,1,6,10"};

/// The Lab of the mean light of a rectangle, pixel by pixel.
std::array<double, 3> lab_of(const std::filesystem::path& path, std::size_t x, std::size_t y,
                             std::size_t w, std::size_t h) {
  const auto rgb = bytes_in(path);
  std::array<double, 3> sum{};
  for (std::size_t j = y; j < y + h; ++j)
    for (std::size_t i = x; i < x + w; ++i) {
      const std::uint8_t* const p = rgb.data() + 3 * (j * kWide + i);
      const Color color{&spaces::kSrgb, {double(p[0]), double(p[1]), double(p[2])}};
      const auto xyz = color.in(spaces::kXyzD50);
      for (std::size_t c = 0; c < 3; ++c) sum[c] += xyz[c] / static_cast<double>(w * h);
    }
  return Color{&spaces::kXyzD50, sum}.in(spaces::kLab);
}

constexpr const char* kTargetLayout = "5x4=4,4,420,336";

/// The patches of the demo's target as correct finds them; the target and its colors are there
/// then.
json patches_of_target(const TempDir& dir) {
  copy_demo(dir, "target.png");
  copy_demo(dir, "target.known.csv");
  return summary_of(run_tool(
      dir, {"correct", "target.png", "--layout", kTargetLayout, "--known", "target.known.csv", "-o",
            "right.png", "--figures", "none", "--summary", "json"}))["inputs"][0]["patches"];
}

std::array<double, 3> lab_in(const json& spot) {
  return {spot["lab"]["l"], spot["lab"]["a"], spot["lab"]["b"]};
}

}  // namespace

TEST_CASE("cells in even rows are regions for other commands", "[cli][spots][measure]") {
  const TempDir dir;
  for (const char* name : {"panel-a.png", "panel-a.reference.png"}) copy_demo(dir, name);
  const Words spots = words_of("spots panel-a.png --layout 6x4=0,0,480,360 --outlines -o out");
  const json found = summary_of(
      run_tool(dir, with(spots, {"--inner", "100", "--summary", "json"})))["inputs"][0]["spots"];
  REQUIRE(found.size() == 24);
  for (const json& spot : found) CHECK(spot["pixels"] == 80 * 90);
  const json file = json::parse(text_of_file(dir / "out/panel-a.spots.geojson"));
  CHECK(file["width"] == 480);
  const json& b3 = file["features"][8];
  CHECK(b3["properties"]["class"] == "B3");
  CHECK(b3["properties"]["color"] == found[8]["color"]);
  CHECK(b3["geometry"]["coordinates"][0][2] == json{240.0, 180.0});
  REQUIRE(run_tool(dir, words_of("measure out/panel-a.spots.geojson --map panel-a.reference.png "
                                 "--figures none -o out"))
              .exit_code == 0);
  // A second way: the labels of the map, cell by cell.
  const auto labels = labels_in(dir / "panel-a.reference.png");
  for (const auto& row : rows_of(dir / "out/panel-a.spots.regions.csv")) {
    const std::string name = row.at("class");
    const std::size_t left = 80 * static_cast<std::size_t>(name[1] - '1'),
                      top = 90 * static_cast<std::size_t>(name[0] - 'A');
    int ruby = 0;
    for (std::size_t y = top; y < top + 90; ++y)
      for (std::size_t x = left; x < left + 80; ++x) ruby += labels[480 * y + x] == 1;
    CHECK(std::stod(row.at("map_ruby_percent")) == Approx(ruby / 72.0));
  }
  // The middle third is read where nothing is said.
  const json third =
      summary_of(run_tool(dir, with(spots, {"--summary", "json"})))["inputs"][0]["spots"];
  CHECK(third[0]["pixels"].get<int>() == Approx(80 * 90 / 9).epsilon(0.05));
  check_error(run_tool(dir, with(spots, {"--inner", "0"})), 2, "--inner");
  check_error(run_tool(dir, words_of("spots panel-a.png --sample a=3,4 --inner 50")), 2,
              "--inner means nothing here: it is of --layout");
}

TEST_CASE("a spot has the color of its mean light", "[cli][spots]") {
  const TempDir dir;
  write_before_and_after(dir);
  const json spots = summary_of(
      run_tool(dir, with({"spots", "a.png", "--summary", "json"}, kThree)))["inputs"][0]["spots"];
  REQUIRE(spots.size() == 3);
  CHECK(spots[0]["name"] == "red");
  CHECK(spots[0]["pixels"] == 60);
  CHECK(spots[1]["pixels"] == 32);  // centers within 3 of 12, 6
  const auto expected = lab_of(dir / "a.png", 1, 1, 6, 10), found = lab_in(spots[0]);
  for (std::size_t c = 0; c < 3; ++c) CHECK(found[c] == Approx(expected[c]).margin(1e-3));
  CHECK(spots[0]["color"] == css_hex({&spaces::kLab, expected}));
  CHECK(spots[0]["spread"].get<double>() > 3);
  CHECK(spots[0]["spread"].get<double>() < 8);
  CHECK_FALSE(spots[0].contains("change"));
  CHECK_FALSE(spots[0].contains("channels"));
}

TEST_CASE("the spots of a target are what correct finds there", "[cli][spots]") {
  const TempDir dir;
  const json found = patches_of_target(dir);
  const json run = summary_of(
      run_tool(dir, {"spots", "target.png", "--layout", kTargetLayout, "--summary", "json"}));
  const json& spots = run["inputs"][0]["spots"];
  REQUIRE(spots.size() == 20);
  CHECK(spots[0]["name"] == "A1");
  CHECK(spots[4]["name"] == "A5");
  CHECK(spots[19]["name"] == "D5");
  for (std::size_t s = 0; s < spots.size(); ++s) {
    CHECK(spots[s]["pixels"] == found[s]["pixels"]);
    for (const char* channel : {"l", "a", "b"})
      CHECK(spots[s]["lab"][channel].get<double>() ==
            Approx(found[s]["found"][channel].get<double>()).margin(1e-3));
  }
  // The same bytes for any number of threads.
  for (const char* threads : {"1", "3"})
    REQUIRE(run_tool(dir, {"spots", "target.png", "--layout", kTargetLayout, "--threads", threads,
                           "--figures", "none", "--channels", "lch", "-o", threads})
                .exit_code == 0);
  CHECK(text_of_file(dir / "1/target.spots.csv") == text_of_file(dir / "3/target.spots.csv"));
}

TEST_CASE("a layout between four corners is that of the target before it was turned",
          "[cli][spots]") {
  const TempDir dir;
  copy_demo(dir, "target.png");
  REQUIRE(run_tool(dir, {"reframe", "target.png", "--turn", "6", "-o", "turned.png"}).exit_code ==
          0);
  const char* const corners = "5x4=39.71,4.47 457.41,48.37 422.29,382.53 4.59,338.63";
  const json turned =
      summary_of(run_tool(dir, {"spots", "turned.png", "--layout", corners, "--summary", "json"}));
  const json upright = summary_of(
      run_tool(dir, {"spots", "target.png", "--layout", kTargetLayout, "--summary", "json"}));
  const json &found = turned["inputs"][0]["spots"], &there = upright["inputs"][0]["spots"];
  REQUIRE(found.size() == 20);
  for (std::size_t s = 0; s < found.size(); ++s) {
    INFO(there[s]["name"]);
    CHECK(found[s]["name"] == there[s]["name"]);
    CHECK(found[s]["pixels"].get<double>() == Approx(there[s]["pixels"].get<double>()).margin(2));
    const auto lab = lab_in(found[s]), expected = lab_in(there[s]);
    for (std::size_t c = 0; c < 3; ++c) CHECK(lab[c] == Approx(expected[c]).margin(0.1));
  }
}

TEST_CASE("spots are held against colors they should have", "[cli][spots]") {
  const TempDir dir;
  const json found = patches_of_target(dir);
  const Words held{
      "spots",       "target.png", "--layout",  kTargetLayout, "--known", "target.known.csv",
      "--tolerance", "5",          "--figures", "svg",         "-o",      "out"};
  const json run = summary_of(run_tool(dir, with(held, {"--summary", "json"})));
  CHECK(run["to"] == "target.known.csv");
  CHECK(run["tolerance"] == 5);
  const json& spots = run["inputs"][0]["spots"];
  std::size_t beyond = 0;
  for (std::size_t s = 0; s < spots.size(); ++s) {
    CHECK(spots[s]["name"] == found[s]["name"]);
    const double far = spots[s]["change"]["delta_e"];
    CHECK(far == Approx(found[s]["before"].get<double>()).margin(1e-3));
    CHECK(spots[s]["beyond_tolerance"] == (far > 5));
    beyond += far > 5 ? 1 : 0;
  }
  CHECK(beyond == 15);
  CHECK_THAT(text_of_file(dir / "out/target.spots.figure.svg"),
             Catch::Contains("left halves are of target.known.csv"));
  CHECK_THAT(text_of_file(dir / "out/target.spots.csv"), Catch::Contains(",beyond_tolerance\r\n"));
  CHECK_THAT(run_tool(dir, held).out,
             Catch::Contains("\n  farther than the tolerance of 5: white, rose, amber, "));
  CHECK_THAT(run_tool(dir, with(held, {"--resume"})).err, Catch::Equals(""));
  // Names by place, where the table has not one color for each.
  CHECK_THAT(run_tool(dir, {"spots", "target.png", "--layout", "4x4=4,4,420,336", "--known",
                            "target.known.csv", "-o", "other"})
                 .err,
             Catch::Contains("has no spot that is called as one it is held against"));
}

TEST_CASE("spots say how far they went, and whether that is more than steady ones do",
          "[cli][spots]") {
  const TempDir dir;
  write_before_and_after(dir);
  const Words both = with(with({"spots", "a.png", "b.png"}, kThree), {"--steady", "gray"});
  const json run = summary_of(run_tool(dir, with(both, {"-o", "out", "--summary", "json"})));
  CHECK(run["to"] == "a.png");
  const json &before = run["inputs"][0]["spots"], &after = run["inputs"][1]["spots"];
  CHECK(before[0]["change"]["delta_e"] == 0);
  const json& change = after[0]["change"];
  CHECK(change["delta_e"].get<double>() ==
        Approx(ciede2000(lab_in(before[0]), lab_in(after[0]))).margin(1e-9));
  CHECK(change["delta_l"].get<double>() ==
        Approx(lab_in(after[0])[0] - lab_in(before[0])[0]).margin(1e-9));
  CHECK(change["words"] == "greener, bluer");
  CHECK(after[1]["change"]["delta_e"] == 0);  // the same pixels
  CHECK(after[0]["beyond_steady"] == true);
  CHECK(after[1]["beyond_steady"] == false);
  CHECK_FALSE(after[2].contains("beyond_steady"));
  CHECK(run["inputs"][1]["steady"] == after[2]["change"]["delta_e"]);
  const auto rows = read_csv(dir / "out/spots.csv");
  REQUIRE(rows.size() == 7);
  const auto column = [&](const char* name) {
    const auto at = std::find(rows[0].begin(), rows[0].end(), name);
    REQUIRE(at != rows[0].end());
    return static_cast<std::size_t>(at - rows[0].begin());
  };
  CHECK(rows[4][column("picture")] == "b.png");
  CHECK(rows[4][column("spot")] == "red");
  CHECK(rows[4][column("change")] == "greener, bluer");
  CHECK(rows[4][column("beyond_steady")] == "yes");
  CHECK(rows[5][column("beyond_steady")] == "no");
  CHECK(rows[6][column("beyond_steady")].empty());
  CHECK(std::stod(rows[4][column("delta_e")]) == change["delta_e"].get<double>());
  for (const char* figure : {"a.spots.figure.png", "b.spots.figure.png", "spots.figure.png"})
    CHECK(open_picture(dir / ("out/" + std::string(figure)), {}).info.shape.width == 1280);
  const std::string text = run_tool(dir, both).out;
  CHECK_THAT(text, Catch::Contains("b.png: 3 spots, held against a.png\n") &&
                       Catch::Contains("greener, bluer") &&
                       Catch::Contains("; farther than that: red\n"));
  CHECK_THAT(text, Catch::StartsWith("a.png: 3 spots\n"));
}

TEST_CASE("spots are held against any picture, each with places of its own", "[cli][spots]") {
  const TempDir dir;
  write_before_and_after(dir);
  const auto region = [](int x) {
    return R"({"type":"FeatureCollection","features":[{"type":"Feature","properties":)"
           R"({"class":"red"},"geometry":{"type":"Point","coordinates":[)" +
           std::to_string(x) +
           R"(.5,5.5]}},{"type":"Feature","properties":{"class":"red"},"geometry":)"
           R"({"type":"Point","coordinates":[)" +
           std::to_string(x + 1) + ".5,5.5]}}]}";
  };
  put_text(dir / "a.samples.geojson", region(3));
  put_text(dir / "b.samples.geojson", region(19));
  const auto told = [&](const Words& more) {
    return summary_of(run_tool(
        dir, with({"spots", "b.png", "--to", "a.png", "--summary", "json"}, more)))["inputs"][0];
  };
  const json own = told({"--samples", "a.samples.geojson", "--samples", "b.samples.geojson"});
  CHECK(own["to"] == "a.png");
  REQUIRE(own["spots"].size() == 1);
  CHECK(own["spots"][0]["pixels"] == 2);
  CHECK(own["spots"][0]["change"]["delta_e"].get<double>() > 15);
  const json one = told({"--samples", "a.samples.geojson"});  // of both
  CHECK(one["spots"][0]["change"]["delta_e"].get<double>() < 15);
  const json apart = told({"--samples", "a.samples.geojson", "--apart"});
  REQUIRE(apart["spots"].size() == 2);
  CHECK(apart["spots"][0]["name"] == "red 1");
  CHECK(apart["spots"][1]["name"] == "red 2");
  // What is wrong with a file is told once, also where a picture is read twice.
  put_text(dir / "twice.geojson",
           R"({"type":"FeatureCollection","features":[{"type":"Feature","properties":)"
           R"({"class":"red"},"geometry":{"type":"Point","coordinates":[3.5,5.5]}},)"
           R"({"type":"Feature","properties":{"class":"red"},"geometry":)"
           R"({"type":"Point","coordinates":[3.5,5.5]}}]})");
  const std::string warned =
      run_tool(dir, {"spots", "a.png", "b.png", "--samples", "twice.geojson"}).err;
  CHECK(std::count(warned.begin(), warned.end(), '\n') == 1);
  CHECK_THAT(warned, Catch::Contains("class 'red' has 1 region twice"));
  // Codes of a channel, as they are stored.
  const json codes = told({"--samples", "a.samples.geojson", "--channels", "srgb.r"});
  const auto rgb = bytes_in(dir / "b.png");
  const double first = rgb[3 * (5 * kWide + 3)], second = rgb[3 * (5 * kWide + 4)];
  const json& red = codes["spots"][0]["channels"][0];
  CHECK(red["channel"] == "srgb.r");
  CHECK(red["mean"].get<double>() == Approx((first + second) / 2));
  CHECK(red["standard_deviation"].get<double>() == Approx(std::abs(first - second) / 2));
  const Outcome text = run_tool(
      dir, {"spots", "b.png", "--samples", "a.samples.geojson", "--channels", "lch.c,lch.h"});
  CHECK_THAT(text.out, Catch::Contains("red   lch.c") && Catch::Contains("lch.h (degrees)"));
}

TEST_CASE("shards of spots are one run", "[cli][spots][shards]") {
  const TempDir dir;
  write_before_and_after(dir);
  for (const char* name : {"c.png", "d.png"})
    write_rgb(dir / name, kWide, kHigh, patches({{{90, 90, 60}, {60, 50, 70}, {122, 121, 120}}}));
  const Words spots = with(
      {"spots", "a.png", "b.png", "c.png", "d.png", "--to", "a.png", "--figures", "svg"}, kThree);
  REQUIRE(run_tool(dir, with(spots, {"-o", "one"})).exit_code == 0);
  for (const std::string part : {"1", "2"})
    REQUIRE(run_tool(dir, with(spots, {"--shard", part + "/2", "-o", "s" + part})).exit_code == 0);
  REQUIRE(run_tool(dir, {"gather", "s1", "s2", "-o", "all"}).exit_code == 0);
  for (const char* file : {"spots.csv", "spots.figure.svg", "b.spots.csv", "how.json"}) {
    INFO(file);
    CHECK(text_of_file(dir / ("all/" + std::string(file))) ==
          text_of_file(dir / ("one/" + std::string(file))));
  }
  CHECK(json::parse(run_tool(dir, with(spots, {"-o", "one", "--resume", "--summary", "json"}))
                        .out)["unchanged"] == 4);
}

TEST_CASE("spots say what they cannot read, and leave nothing", "[cli][spots]") {
  const TempDir dir;
  write_before_and_after(dir);
  write_picture(dir / "clear.png", spec_of(kWide, kHigh, 4),
                bytes_of(std::vector<std::uint8_t>(kWide * kHigh * 4)));
  put_text(dir / "other.geojson",
           R"({"type":"FeatureCollection","features":[{"type":"Feature","properties":)"
           R"({"class":"other"},"geometry":{"type":"Point","coordinates":[3.5,5.5]}}]})");
  put_text(dir / "red.geojson",
           R"({"type":"FeatureCollection","features":[{"type":"Feature","properties":)"
           R"({"class":"red"},"geometry":{"type":"Point","coordinates":[3.5,5.5]}}]})");
  const auto refused = [&](const Words& words, int code, const std::string& says) {
    check_error(run_tool(dir, with(with({"spots"}, words), {"-o", "out"})), code, says);
    check_nothing_in(dir, "out");
  };
  refused({"a.png"}, 2, "spots needs --samples, --sample or --layout; say where the spots are");
  refused({"a.png", "--layout", "2x2=0,0,24,12", "--sample", "a=1,1"}, 2,
          "--sample means nothing here: --layout says where the spots are");
  refused({"a.png", "--layout", "2x2"}, 2, "--layout: '2x2' does not say columns, rows");
  refused({"a.png", "--layout", "20x2=0,0,24,12"}, 1, "--layout: leaves less than a pixel of each");
  refused({"a.png", "--layout", "2x2=0,0 24,0 12,12"}, 2,
          "--layout: '0,0 24,0 12,12' is not four corners");
  refused({"a.png", "--layout", "2x2=0,0 25,0 24,12 0,12"}, 1,
          "--layout: a corner lies outside the picture, which is 24x12");
  refused(
      {"a.png", "--sample", "a=1,1", "--steady", "a"}, 2,
      "--steady needs something to hold the spots against; give --to, --known or several pictures");
  refused({"a.png", "--sample", "a=1,1", "--tolerance", "2"}, 2,
          "--tolerance needs something to hold the spots against");
  refused({"a.png", "--sample", "a=1,1", "--known", "k.csv", "--to", "b.png"}, 2,
          "--to means nothing here: --known says what the spots are held against");
  refused({"a.png", "--sample", "a=1,1", "--known", "k.csv", "--tolerance", "no"}, 2,
          "--tolerance: ");
  refused({"a.png", "--sample", "a=1,1", "--known", "k.csv"}, 1, "k.csv: no such file");
  for (const Words& part : {Words{"--resume"}, Words{"--shard", "1/2"}})
    refused(
        with({"a.png", "b.png", "--sample", "red=1,1"}, part), 2,
        "--resume and --shard need --to here; name the picture that the spots are held against");
  refused({"a.png", "b.png", "--sample", "red=1,1", "--steady", "rad"}, 1,
          "a.png: has no spot 'rad' to be steady; did you mean 'red'?");
  refused({"a.png", "--sample", "a=30,1"}, 1,
          "a.png, --sample: a sample of class 'a' reaches outside the picture, which is 24x12");
  refused({"clear.png", "--sample", "a=3,1"}, 1,
          "the spot 'a' has no pixel that counts; draw it larger, or leave it out");
  write_labels(dir / "map.png", kWide, std::vector<std::uint8_t>(kWide * kHigh, 1),
               {{1, "lead", "#303030"}});
  refused({"map.png", "--sample", "a=3,1"}, 1,
          "map.png: is a mask or a class map, whose numbers are no colors");
  refused({"a.png", "--sample", "a=3,1", "--to", "none.png"}, 1, "none.png: no such file");
  std::vector<std::uint8_t> dots;
  for (std::size_t i = 0; i < 202 * 202; ++i) dots.push_back(i % 202 % 2 == 0 && i / 202 % 2 == 0);
  write_labels(dir / "dots.png", 202, dots, {{1, "dot", "#303030"}});
  write_rgb(dir / "wide.png", 202, 202, random_bytes(202 * 202 * 3));
  refused({"wide.png", "--samples", "dots.png", "--apart"}, 1,
          "dots.png: has 10201 spots, more than are read at once; give up to 10000, or have the "
          "regions of a map measured by 'measure'");
  // One that fails does not stop the others.
  check_error(
      run_tool(dir, {"spots", "a.png", "b.png", "--samples", "red.geojson", "--samples",
                     "other.geojson", "-o", "out", "--figures", "none"}),
      1,
      "b.png: has no spot that is called as one it is held against; give its spots the same names");
  CHECK(dir.files().contains("out/a.spots.csv"));
  CHECK_FALSE(dir.files().contains("out/b.spots.csv"));
  put_text(dir / "both.geojson",
           R"({"type":"FeatureCollection","features":[{"type":"Feature","properties":)"
           R"({"class":"red"},"geometry":{"type":"Point","coordinates":[3.5,5.5]}},)"
           R"({"type":"Feature","properties":{"class":"gray"},"geometry":)"
           R"({"type":"Point","coordinates":[20.5,5.5]}}]})");
  check_error(
      run_tool(dir, {"spots", "a.png", "b.png", "--samples", "both.geojson", "--samples",
                     "red.geojson", "--steady", "gray", "-o", "steady", "--figures", "none"}),
      1, "b.png: has none of the steady spots; name spots with --steady that it has");
}
