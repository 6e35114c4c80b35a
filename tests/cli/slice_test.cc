// `slice` at the built program: cuts, ranges, quantiles, and what it refuses.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "core/color/css_color.h"
#include "core/palette/figure_colors.h"
#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

/// Grays 0, 50, 100, 150, 200, 250.
void write_grays(const std::filesystem::path& path) {
  std::vector<std::uint8_t> rgb;
  for (int v = 0; v <= 250; v += 50)
    for (int c = 0; c < 3; ++c) rgb.push_back(static_cast<std::uint8_t>(v));
  write_rgb(path, 6, 1, rgb);
}

}  // namespace

TEST_CASE("slice maps cuts of a channel, with areas", "[cli][slice]") {
  const TempDir dir;
  write_grays(dir / "g.png");
  const json found = summary_of(run_tool(dir, {"slice", "g.png", "--channel", "srgb.r", "--cuts",
                                               "50,100,200", "-o", "out", "--summary", "json"}));
  const json& picture = found["inputs"][0];
  CHECK(found["channel"] == "srgb.r");
  CHECK(labels_in(dir / "out/g.slices.png") == std::vector<std::uint8_t>{0, 1, 2, 2, 2, 0});
  CHECK(picture["unclassified"] == 2);
  CHECK(picture["classes"][1]["pixels"] == 3);
  CHECK(picture["slices"][0]["name"] == "srgb.r 50..100");
  CHECK(picture["slices"][1]["to"] == 200);
  CHECK(std::filesystem::exists(dir / "out/g.slices.figure.png"));
  const auto lines = lines_of(dir / "out/g.slices.csv");
  REQUIRE(lines.size() == 4);
  CHECK_THAT(lines[2], Catch::StartsWith("1,srgb.r 50..100,#"));
  const json equal = summary_of(
      run_tool(dir, {"slice", "g.png", "--channel", "lab.l", "--equal", "5", "--summary", "json"}));
  CHECK(equal["inputs"][0]["slices"].size() == 5);
  CHECK(equal["inputs"][0]["unclassified"] == 0);
  const json parts = summary_of(run_tool(
      dir, {"slice", "g.png", "--channel", "srgb.g", "--quantiles", "3", "--summary", "json"}));
  for (const json& c : parts["inputs"][0]["classes"]) CHECK(c["pixels"] == 2);
}

TEST_CASE("cuts of a hue go round the circle", "[cli][slice]") {
  const TempDir dir;
  // Hues 0, 60, 180 and 330.
  write_rgb(dir / "h.png", 4, 1, {255, 0, 0, 255, 255, 0, 0, 255, 255, 255, 0, 128});
  const json found = summary_of(run_tool(dir, {"slice", "h.png", "--channel", "hsv.h", "--cuts",
                                               "30,90,300", "-o", "out", "--summary", "json"}));
  const json& picture = found["inputs"][0];
  REQUIRE(picture["classes"].size() == 3);
  CHECK(picture["classes"][2]["name"] == "hsv.h 300..30");
  CHECK(picture["slices"][2]["from"] == 300);
  CHECK(picture["slices"][2]["to"] == 30);
  CHECK(labels_in(dir / "out/h.slices.png") == std::vector<std::uint8_t>{3, 1, 2, 3});
  CHECK(picture["unclassified"] == 0);
  // Cuts that go round it already stay as they are.
  const json whole = summary_of(run_tool(
      dir, {"slice", "h.png", "--channel", "hsv.h", "--cuts", "0,180,360", "--summary", "json"}));
  CHECK(whole["inputs"][0]["classes"].size() == 2);
}

TEST_CASE("slices of hues have the color of their middle", "[cli][slice]") {
  const TempDir dir;
  write_rgb(dir / "h.png", 4, 1, {255, 0, 0, 255, 255, 0, 0, 255, 255, 255, 0, 128});
  const auto hues = [&](const Words& ways) {
    const json found = summary_of(
        run_tool(dir, with({"slice", "h.png", "--channel", "hsv.h", "--summary", "json"}, ways)));
    std::vector<double> list;
    for (const json& slice : found["inputs"][0]["slices"])
      list.push_back(css_color(slice["color"].get<std::string>()).in(spaces::kHsv)[0]);
    return list;
  };
  const auto ranges = hues({"--range", "red=340..40", "--range", "blue=200..260"});
  CHECK(ranges[0] == Approx(10).margin(1));
  CHECK(ranges[1] == Approx(230).margin(1));
  const auto cuts = hues({"--cuts", "30,90,300"});
  CHECK(cuts[0] == Approx(60).margin(1));
  CHECK(cuts[1] == Approx(195).margin(1));
  CHECK(cuts[2] == Approx(345).margin(1));
  // Other values have no look of their own: their colors are told apart.
  const json grays = summary_of(
      run_tool(dir, words_of("slice h.png --channel lab.l --range dark=0..50 --range light=50..100 "
                             "--summary json")));
  CHECK(grays["inputs"][0]["slices"][0]["color"] == css_hex(class_color(0)));
}

TEST_CASE("slice says where ranges overlap or leave gaps", "[cli][slice]") {
  const TempDir dir;
  write_grays(dir / "g.png");
  const auto run = run_tool(dir, {"slice", "g.png", "--channel", "srgb.r", "--range", "dark=0..60",
                                  "--range", "middle=40..110", "--range", "light=180..260"});
  CHECK(run.exit_code == 0);
  CHECK_THAT(run.err, Catch::Contains("'dark' and 'middle' overlap; what is in both is 'dark'") &&
                          Catch::Contains("values from 110 to 180 are in no slice"));
  CHECK_THAT(run.out, Catch::Contains("16.67 % in no slice"));
}

TEST_CASE("slice makes a class of each selection", "[cli][slice]") {
  const TempDir dir;
  write_grays(dir / "g.png");
  const Words slice{"slice",   "g.png",
                    "--where", "dark=srgb.r <= 60",
                    "--where", "pale=srgb.r in 40..210",
                    "--where", "dark=srgb.r = 250",
                    "--color", "pale=#ff8800"};
  const json found = summary_of(run_tool(dir, with(slice, {"-o", "out", "--summary", "json"})));
  // Grays 0, 50, 100, 150, 200, 250: what several take is of the first, and one name is one class.
  CHECK(labels_in(dir / "out/g.slices.png") == std::vector<std::uint8_t>{1, 1, 2, 2, 2, 1});
  const json& picture = found["inputs"][0];
  CHECK(picture["contested"] == 1);
  CHECK(picture["unclassified"] == 0);
  CHECK(picture["classes"][0]["pixels"] == 3);
  CHECK(picture["classes"][1]["color"] == "#ff8800");
  CHECK_FALSE(found.contains("channel"));
  REQUIRE(found["selections"].size() == 3);
  CHECK(found["selections"][2]["name"] == "dark");
  CHECK(found["selections"][2]["where"] == "srgb.r = 250");
  CHECK(found["selections"][2]["channels"] == json({"srgb.r"}));
  CHECK(found["selections"][2]["color"] == found["selections"][0]["color"]);
  CHECK(std::filesystem::exists(dir / "out/g.slices.figure.png"));
  CHECK(lines_of(dir / "out/g.slices.csv").size() == 4);
  const std::string said = run_tool(dir, slice).out;
  CHECK_THAT(said, Catch::Contains("g.png: 6 pixels by 3 selections, 0.00 % in none") &&
                       Catch::Contains("srgb.r <= 60; or srgb.r = 250") &&
                       Catch::Contains("1 pixel in several of them; each is of the first"));
  // Values of Lab are shown with their white.
  CHECK_THAT(run_tool(dir, {"slice", "g.png", "--where", "dark=lab.l < 30"}).out,
             Catch::Contains("lab.l < 30\n  white of lab: D50\n"));
  // A channel of its own, and limits that look like a mistake.
  const auto own = run_tool(dir, {"slice", "g.png", "--let", "twice=srgb.r + srgb.g", "--where",
                                  "much=twice > 250", "--where", "vivid=hsv.s > 0.5"});
  CHECK(own.exit_code == 0);
  CHECK_THAT(own.out, Catch::Contains("much        3 "));
  CHECK_THAT(own.err, Catch::Contains("'hsv.s > 0.5': hsv.s goes from 0 to 100 %"));
}

TEST_CASE("what mask takes by a selection is what slice does", "[cli][slice]") {
  const TempDir dir;
  copy_demo(dir, "panel-a.png");
  const std::string red = "hsv.h in 340..20 and hsv.s >= 50", pale = "near(#c8c8c0, 20)";
  summary_of(
      run_tool(dir, {"slice", "panel-a.png", "--where", "red=" + red, "--where", "pale=" + pale,
                     "-o", "out", "--write", "slices", "--summary", "json"}));
  const auto labels = labels_in(dir / "out/panel-a.slices.png");
  const auto mask = [&](const std::string& where) {
    REQUIRE(run_tool(dir, {"mask", "panel-a.png", "--where", where, "-o", "out", "--write", "mask"})
                .exit_code == 0);
    return labels_in(dir / "out/panel-a.mask.png");
  };
  const auto reds = mask(red), pales = mask(pale);
  REQUIRE(labels.size() == reds.size());
  std::size_t wrong = 0, taken = 0;
  for (std::size_t i = 0; i < labels.size(); ++i) {
    wrong += labels[i] != (reds[i] ? 1 : pales[i] ? 2 : 0);
    taken += labels[i] > 0;
  }
  CHECK(wrong == 0);
  CHECK(taken > 10000);
}

TEST_CASE("slice refuses what it cannot slice, and leaves nothing", "[cli][slice]") {
  const TempDir dir;
  write_grays(dir / "g.png");
  const std::vector<std::tuple<std::vector<std::string>, int, const char*>> wrong{
      {{}, 2, "slice needs --channel, or --where with names"},
      {{"--where", "lab.l < 30"}, 2, "'lab.l < 30' says no name of its class"},
      {{"--where", "lab.l <= 30"}, 2, "'lab.l <= 30' says no name of its class"},
      {{"--where", "dark=lab.q <= 30"},
       2,
       "--where dark: selection, character 1: expected a channel"},
      {{"--where", "lab.q <= 30"}, 2, "--where: selection, character 1: expected a channel"},
      {{"--where", "dark=lab.l < 30", "--cuts", "0,50"},
       2,
       "--where and --cuts each say what the classes are; give one of them"},
      {{"--where", "dark=lab.l < 30", "--color", "drak=#000000"},
       2,
       "--color: no class is called 'drak'; did you mean 'dark'?"},
      {{"--channel", "lab.l", "--quantiles", "2", "--color", "dark=#000000"},
       2,
       "--color: no class has a name yet; name them, as in --where \"dark=lab.l < 30\""},
      {{"--where", "dark=lab.l < 30", "--color", "dark=coal"}, 2, "--color: 'coal'"},
      {{"--channel", "lab.q"}, 2, "--channel: "},
      {{"--channel", "lab.l"}, 2, "takes one of --cuts, --range, --equal and --quantiles"},
      {{"--channel", "lab.l", "--cuts", "3,1"}, 2, "1 does not lie above"},
      {{"--channel", "lab.l", "--cuts", "3"}, 2, "two values or more"},
      {{"--channel", "lab.l", "--cuts", "3,x"}, 2, "'x' is not a number"},
      {{"--channel", "lab.l", "--range", "a=3"}, 2, "'3' is no interval"},
      {{"--channel", "lab.l", "--range", "a=9..3"}, 2, "9..3 holds no value"},
      {{"--channel", "hsv.h", "--quantiles", "3"}, 2, "a hue has no lowest value"},
      {{"--channel", "file.0", "--equal", "3"}, 2, "file.0 has no usual range"},
      {{"--channel", "srgb.r", "--quantiles", "7"}, 1, "too few different values of srgb.r"}};
  for (const auto& [words, code, says] : wrong) {
    check_error(run_tool(dir, with({"slice", "g.png", "-o", "out"}, words)), code, says);
  }
  check_nothing_in(dir, "out");
}
