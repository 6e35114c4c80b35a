// `tune` at the built program: what its pages begin with, and that what they take is what mask
// takes.
#include <array>
#include <catch2/catch.hpp>
#include <cstring>
#include <nlohmann/json.hpp>

#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/plain_color.h"
#include "tests/support/sample_regions.h"
#include "tests/support/tool.h"
#include "tests/support/tune_page.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

constexpr std::uint32_t kPatchesWide = 40, kPatchesHigh = 24;
const Words kTune{"tune", "patches.png", "-o", "out"};

/// Left reds, right blues, each with some noise; below them a strip of grays, which have no hue.
void write_patches(const TempDir& dir) {
  const std::vector<std::uint8_t> noise = random_bytes(3 * kPatchesWide * kPatchesHigh, 5);
  std::vector<std::uint8_t> rgb;
  for (std::uint32_t y = 0; y < kPatchesHigh; ++y)
    for (std::uint32_t x = 0; x < kPatchesWide; ++x) {
      const std::size_t at = 3 * (std::size_t{y} * kPatchesWide + x);
      const bool red = x < kPatchesWide / 2;
      const std::array<int, 3> codes{red ? 190 : 30, 40, red ? 50 : 170};
      for (std::size_t c = 0; c < 3; ++c)
        rgb.push_back(static_cast<std::uint8_t>(
            y < 20 ? static_cast<std::uint32_t>(codes[c]) + noise[at + c] % 24u : 60 + 4 * x));
    }
  write_rgb(dir / "patches.png", kPatchesWide, kPatchesHigh, rgb);
}

/// How many pixels mask takes.
std::uint64_t selected(const TempDir& dir, const Words& how) {
  return summary_of(run_tool(
      dir, with({"mask", "patches.png", "--summary", "json"}, how)))["inputs"][0]["selected"];
}

}  // namespace

TEST_CASE("a page of tune holds the picture pixel by pixel, or every so many", "[cli][tune]") {
  const TempDir dir;
  write_patches(dir);
  const Outcome run = run_tool(dir, kTune);
  CHECK(run.exit_code == 0);
  CHECK_THAT(run.out, Catch::StartsWith("patches.png: 40 x 24 pixels, all of them on the page\n") &&
                          Catch::Contains("  960 pixels that count; limits of hsv.h hsv.s hsv.v\n"
                                          "wrote out/patches.tune.html\n"
                                          "open the page in a browser, set limits, save them, and "
                                          "give the file to mask, or of several\nclasses to "
                                          "slice, with --config\n"));
  const std::string page = text_of_file(dir / "out/patches.tune.html");
  CHECK(run_tool(dir, {"tune", "patches.png", "-o", "one", "--threads", "1"}).exit_code == 0);
  CHECK(text_of_file(dir / "one/patches.tune.html") == page);
  write_rgb(dir / "wide.png", 250, 8, random_bytes(250 * 8 * 3));
  const json wide = summary_of(run_tool(
      dir, {"tune", "wide.png", "--view", "100", "-o", "out", "--summary", "json"}))["inputs"][0];
  CHECK(wide["every"] == 3);
  CHECK(wide["counted"] == 84 * 3);
  CHECK(wide["kinds"] == 84 * 3);
}

TEST_CASE("a page of tune holds each pixel with its color, its values and its class",
          "[cli][tune]") {
  const TempDir dir;
  write_patches(dir);
  std::vector<std::uint8_t> labels(kPatchesWide * kPatchesHigh, 0);
  for (std::size_t i = 0; i < labels.size(); i += 3)
    labels[i] = static_cast<std::uint8_t>(i % 2 + 1);
  write_labels(dir / "classes.png", kPatchesWide, labels,
               {{1, "a", "#a00000"}, {2, "b", "#0000a0"}});
  REQUIRE(run_tool(dir, with(kTune, {"--channels", "lab,hsv.s", "--classes", "classes.png"}))
              .exit_code == 0);
  const std::filesystem::path page = dir / "out/patches.tune.html";
  const std::vector<std::uint8_t> kinds = bytes_on(page, "kinds"), rgb = bytes_on(page, "rgb"),
                                  classes = bytes_on(page, "class-of"),
                                  values = bytes_on(page, "values"),
                                  picture = bytes_in(dir / "patches.png");
  REQUIRE(kinds.size() == 3 * labels.size());
  REQUIRE(rgb.size() == 3 * classes.size());
  REQUIRE(values.size() == 4 * 4 * classes.size());
  for (std::size_t i = 0; i < labels.size(); ++i) {
    const std::size_t kind = kinds[3 * i] + (kinds[3 * i + 1] << 8) + (kinds[3 * i + 2] << 16);
    REQUIRE(kind < classes.size());
    CHECK(classes[kind] == labels[i]);
    Triple color;
    for (std::size_t c = 0; c < 3; ++c) {
      CHECK(rgb[3 * kind + c] == picture[3 * i + c]);
      color[c] = picture[3 * i + c];
    }
    const Triple lab = plain_from_srgb("lab", color), hsv = plain_from_srgb("hsv", color);
    const std::array<double, 4> plain{lab[0], lab[1], lab[2], hsv[1]};
    for (std::size_t c = 0; c < 4; ++c) {
      float value = 0;
      std::memcpy(&value, values.data() + 4 * (c * classes.size() + kind), 4);
      CHECK(value == Approx(plain[c]).margin(2e-3));
    }
  }
}

TEST_CASE("tune takes the channels of the picture where it has no color", "[cli][tune]") {
  const TempDir dir;
  write_picture(dir / "gray.png", spec_of(4, 2, 1), bytes_of(random_bytes(8)));
  const auto channels = [&](const Words& words) {
    return summary_of(run_tool(dir, with({"tune", "gray.png", "-o", "out", "--summary", "json"},
                                         words)))["inputs"][0]["channels"];
  };
  CHECK(channels({}) == json({"gray"}));
  CHECK(channels({"--where", "lab.l >= 3"}) == json({"gray", "lab.l"}));
  CHECK(channels({"--channels", "lab.l,gray", "--where", "lab.l >= 3"}) == json({"lab.l", "gray"}));
  CHECK(channels({"--space", "luv"}) == json({"luv.l", "luv.u", "luv.v"}));
}

TEST_CASE("tune refuses what it cannot begin with, and leaves nothing", "[cli][tune]") {
  const TempDir dir;
  write_patches(dir);
  const auto refused = [&](const Words& words, int code, const std::string& message) {
    check_error(run_tool(dir, with(kTune, words)), code, message);
    check_nothing_in(dir, "out");
  };
  refused(
      {"--where", "hsv.s > 50"}, 2,
      "--where: 'hsv.s > 50' is not made of limits of channels alone; join intervals, >= and <= "
      "by 'and'");
  refused({"--where", "hsv.s >= 5 and hsv.s >= 9"}, 2,
          "--where: 'hsv.s >= 9' limits hsv.s once more; give each end of a channel once");
  refused({"--where", "hsv.q >= 5"}, 2, "hsv.q");
  refused({"--where", "red=hsv.s >= 50", "--where", "hsv.s <= 5"}, 2,
          "--where: 'hsv.s <= 5' says no name of its class; write NAME=SELECTION");
  refused({"--where", "red=hsv.s >= 50", "--where", "red=hsv.s <= 5"}, 2,
          "--where: 'red' has limits already; give each class limits once");
  refused({"--where", "red=hsv.s >= 50", "--color", "rde=#a00000"}, 2,
          "--color: no class is called 'rde'; did you mean 'red'?");
  refused({"--where", "hsv.s >= 50", "--color", "red=#a00000"}, 2,
          "--color: no class has a name yet");
  Words many;
  for (int i = 0; i < 65; ++i) {
    many.push_back("--where");
    many.push_back("class " + std::to_string(i) + "=hsv.s >= 5");
  }
  refused(many, 2, "--where: there are 65 selections, more than 64; give fewer");
  refused({"--channels", "hsv,hsl,lab,luv,oklab,oklch,srgb,hsi,gray"}, 2,
          "tune takes 24 channels at most");
  refused({"--view", "99"}, 2, "--view: '99' is not a whole number from 100 to 4000");
  write_picture(dir / "bands.tif", spec_of(2, 2, 25), bytes_of(random_bytes(100)));
  check_error(run_tool(dir, {"tune", "bands.tif", "-o", "out"}), 1,
              "bands.tif: has 25 channels to set limits of, more than 24; name those that matter "
              "with --channels");
  check_nothing_in(dir, "out");
  refused({"--classes", "none.geojson"}, 1, "none.geojson");
  write_labels(dir / "small.png", 2, {1, 2}, {{1, "a", "#a00000"}, {2, "b", "#00a000"}});
  refused({"--classes", "small.png"}, 1, "small.png: is 2x1");
  // One pixel counts, which is not seen on a small view.
  std::vector<std::uint8_t> one(250 * 8);
  one[1] = 255;
  write_labels(dir / "one.mask.png", 250, one);
  write_rgb(dir / "wide.png", 250, 8, random_bytes(250 * 8 * 3));
  check_error(
      run_tool(dir, {"tune", "wide.png", "--within", "one.mask.png", "--view", "100", "-o", "out"}),
      1, "wide.png: no pixel that its page would show counts; show more of them with --view");
  check_nothing_in(dir, "out");
}

TEST_CASE("what a page of tune takes is what mask takes", "[cli][tune][browser]") {
  if (lacks_browser()) return;
  const TempDir dir;
  write_patches(dir);
  const Words channels{"--let", "warmth=lab.a + lab.b", "--channels", "hsv,lab,file.1,warmth"};
  REQUIRE(run_tool(dir, with(kTune, channels)).exit_code == 0);
  // Ends that are values of pixels, whole numbers that many pixels have, and such that few have.
  const json found = found_on_tune(dir, dir / "out/patches.tune.html", R"(
const of = name => channels.find(channel => channel.name === name);
const try_ = limits => { current().limits = limits; draw(); note(); };
try_({});
try_({ "hsv.h": [340, 20] });
try_({ "hsv.h": [200, 260], "hsv.s": [null, 80] });
try_({ "hsv.h": [0, 360] });
try_({ "file.1": [44, 52] });
try_({ "file.1": [null, 47], "lab.l": [30, null] });
try_({ "warmth": [-60.5, null], "lab.b": [-70, 31.25] });
for (const name of ["hsv.h", "hsv.s", "lab.a", "warmth"])
  for (const kind of [5, 50, begun.kinds - 9]) {
    if (Number.isNaN(of(name).values[kind])) continue;
    const value = Number(numberText(of(name).values[kind]));
    try_({ [name]: [value, null] });
    try_({ [name]: [null, value] });
    try_({ [name]: [Math.min(value, 20), Math.max(value, 20)] });
  }
)");
  REQUIRE(found["taken"].size() == 40);
  CHECK(found["taken"][0] == json({"", 960}));
  for (std::size_t i = 1; i < found["taken"].size(); ++i) {
    const json& one = found["taken"][i];
    INFO(one.dump());
    CHECK(selected(dir, {"--let", "warmth=lab.a + lab.b", "--where", one[0]}) == one[1]);
  }
}

TEST_CASE("what is like a place on the page is what mask finds like it", "[cli][tune][browser]") {
  if (lacks_browser()) return;
  const TempDir dir;
  write_patches(dir);
  REQUIRE(run_tool(dir, with(kTune, {"--channels", "hsv,oklab,file.2"})).exit_code == 0);
  const json found = found_on_tune(dir, dir / "out/patches.tune.html", R"(
over([2.5, 3.5], [15.5, 14.5]);
note();
over([22.2, 3.2], [22.4, 3.4], [38.9, 5.9]);
note();
over([1.5, 21.5], [9.5, 22.5]);
note();
over([30.5, 10.5]);
note();
)");
  const std::vector<std::string> places{"2,3,14,12", "22,3,17,3", "1,21,9,2", "27,7,7,7"};
  for (std::size_t i = 0; i < places.size(); ++i) {
    INFO(places[i]);
    const json mask =
        summary_of(run_tool(dir, {"mask", "patches.png", "--like", places[i], "--channels",
                                  "hsv,oklab,file.2", "--summary", "json"}))["inputs"][0];
    CHECK(found["taken"][i] == json({mask["where"], mask["selected"]}));
  }
}

TEST_CASE("limits follow what is pointed at, dragged and typed", "[cli][tune][browser]") {
  if (lacks_browser()) return;
  const TempDir dir;
  write_patches(dir);
  std::vector<std::uint8_t> labels;
  for (std::uint32_t y = 0; y < kPatchesHigh; ++y)
    for (std::uint32_t x = 0; x < kPatchesWide; ++x)
      labels.push_back(y >= 20 ? 0 : x < kPatchesWide / 2 ? 1 : 2);
  write_labels(dir / "patches.classes.png", kPatchesWide, labels,
               {{1, "red", "#c02040"}, {2, "blue", "#2030b0"}, {3, "none here", "#30b020"}});
  const Words words = with(
      kTune, {"--classes", "patches.classes.png", "--hue-floor", "2", "--where", "hsv.v >= 20"});
  REQUIRE(run_tool(dir, words).exit_code == 0);
  const std::filesystem::path page = dir / "out/patches.tune.html";
  const json found = found_on_tune(dir, page, R"(
const shares = () => [...part("shares").children].filter(one => !one.hidden).map(one => one.textContent);
found.begun = selectionText(current().limits, channels);
over([2, 2], [18, 18]);
found.like = [shares(), isTaken(30, 5), isTaken(30, 22)];
note();
press("i");
over([25, 5], [38, 15]);
found.within = [isTaken(26, 6), isTaken(37, 14), isTaken(5, 5)];
note();
press("o");
over([30.5, 10.5]);
found.without = [isTaken(30, 10), isTaken(5, 5)];
note();
over([20, 0], [39, 19]);
found.blueGone = shares();
note();
over([30.5, 10.5]);
found.nothing = part("hint").textContent;
press("i");
over([30.5, 22.5]);
found.gray = part("hint").textContent;
part("anew").click();
slide("hsv.s", 20, 60);
note();
slide("hsv.s", 60, 70);
note();
slide("hsv.s", 40, 45);
found.slid = { ...current().limits };
slide("hsv.h", 330, 350);
slide("hsv.h", 350, 10);
found.hue = current().limits["hsv.h"];
found.wrong = [type("hsv.s", "low", "abc"), type("hsv.s", "low", "90"), type("hsv.h", "high", "361")];
type("hsv.s", "low", "12,5");
type("hsv.s", "high", "");
type("hsv.h", "low", "");
note();
panels[2].clear.click();
found.cleared = selectionText(current().limits, channels);
press("z", { ctrlKey: true });
type("hsv.v", "low", "33");
part("undo").click();
press("m");
found.shown = part("show").textContent;
found.state = part("state").textContent;
found.command = part("command").textContent;
)");
  INFO(found.dump(1));
  CHECK(found["begun"] == "hsv.v >= 20");
  // Of each channel a hundredth is left out on either side.
  CHECK(found["like"][1] == false);
  CHECK(found["like"][2] == false);
  REQUIRE(found["like"][0].size() == 2);
  const std::string red = found["like"][0][0];
  CHECK(std::stod(red.substr(4)) > 90);
  CHECK(found["like"][0][1] == "blue 0.00 %");
  CHECK(found["within"] == json({true, true, true}));
  CHECK(found["without"] == json({false, true}));
  CHECK(found["blueGone"][1] == "blue 0.00 %");
  CHECK(std::stod(found["blueGone"][0].get<std::string>().substr(4)) > 90);
  CHECK(found["nothing"] == "Nothing of it is taken.");
  CHECK(found["gray"] == "hsv.h has no value there, so a limit of it leaves that out.");
  CHECK(found["slid"]["hsv.s"] == json({25, 75}));
  CHECK(found["hue"] == json({330, 10}));
  CHECK(found["wrong"] == json({"a number", "the lower end first", "a number from 0 to 360"}));
  CHECK(found["cleared"] == "hsv.s >= 12.5");
  CHECK(found["selection"] == "hsv.s >= 12.5 and hsv.v >= 20");
  CHECK_THAT(found["shown"].get<std::string>(), Catch::StartsWith("Taken alone"));
  CHECK(found["command"] ==
        "chalcedony mask patches.png --hue-floor 2 --where \"hsv.s >= 12.5 and "
        "hsv.v >= 20\" -o out/");
  CHECK(found["wider"] <= 0);
  for (const json& one : found["taken"]) {
    INFO(one.dump());
    CHECK(selected(dir, {"--hue-floor", "2", "--where", one[0]}) == one[1]);
  }
  // The file that is saved is one that mask takes, with what the page was made with.
  put_text(dir / "patches.mask.yaml", found["file"].get<std::string>());
  const std::uint64_t by_file = selected(dir, {"--config", "patches.mask.yaml"});
  CHECK_THAT(found["state"].get<std::string>(),
             Catch::Contains(" taken: " + std::to_string(by_file) + " of 960 pixels"));
  CHECK_THAT(found["file"].get<std::string>(), Catch::Contains("hue-floor: \"2\"\n"));
  // What was set is remembered, on this page alone, and fits a narrow window.
  const json again = found_on_tune(dir, page, "", "390,800");
  CHECK(again["selection"] == found["selection"]);
  CHECK(again["wider"] <= 0);
  std::filesystem::rename(page, dir / "out/before.html");
  REQUIRE(run_tool(dir, kTune).exit_code == 0);
  CHECK(found_on_tune(dir, page, "")["selection"] == "");
}

TEST_CASE("classes of a page of tune are those of slice", "[cli][tune][slice][browser]") {
  if (lacks_browser()) return;
  const TempDir dir;
  write_patches(dir);
  REQUIRE(run_tool(dir, with(kTune, {"--where", "red=hsv.h in 300..40 and hsv.s >= 30", "--where",
                                     "bright=hsv.v >= 60", "--color", "bright=#ffee00", "--let",
                                     "warmth=lab.a + lab.b"}))
              .exit_code == 0);
  const std::filesystem::path page = dir / "out/patches.tune.html";
  const json found = found_on_tune(dir, page, R"(
const named = (text, id) => {
  part("name").value = text;
  part("name").dispatchEvent(new Event("input"));
  part("another").requestSubmit(part(id));
};
const buttons = () => [...part("classes").children].map(one => one.textContent);
found.begun = [buttons(), part("state").textContent];
const at = ([x, y]) => "#" + [0, 8, 16].map(shift => (pixels[y * size.width + x] >> shift & 255).toString(16).padStart(2, "0")).join("");
shown = 4;
draw();
const outside = kindOf.findIndex(kind => labels[kind] === 0);
found.outside = [at([outside % size.width, Math.floor(outside / size.width)]), "#" + grayApartFrom(
  state.classes.map(one => [1, 3, 5].map(c => parseInt(colorOfClass(one).slice(c, c + 2), 16)))).map(v => v.toString(16).padStart(2, "0")).join("")];
shown = 0;
press("2");
found.second = [current().name, part("state").textContent];
named("blue", "add");
found.empty = [buttons()[2], part("up").disabled];
over([22, 2], [38, 18]);
part("up").click();
found.order = state.classes.map(one => one.name);
named("gray", "add");
named("x=y", "add");
found.refused = part("name").validationMessage;
part("name").value = "";
type("hsv.s", "high", "10");
named("grays", "rename");
named("red", "rename");
found.twice = part("hint").textContent;
named("to be removed", "add");
part("remove").click();
press("z", { ctrlKey: true });
part("remove").click();
part("color").value = "#123456";
part("color").dispatchEvent(new Event("change"));
for (let i = 0; i < 4; ++i) press("m");
found.shown = part("show").textContent;
found.labels = [...kindOf].map(kind => labels[kind]);
found.colors = [[5, 5], [30, 10], [1, 22]].map(at);
found.own = state.classes.map(colorOfClass);
found.none = [grayApartFrom([[60, 61, 64], [207, 208, 205], [31, 138, 76]]), grayApartFrom([[10, 10, 10], [120, 120, 120]])];
found.saved = part("save").download;
found.command = part("command").textContent;
found.told = part("where").value;
)");
  INFO(found.dump(1));
  CHECK(found["begun"][0][0].get<std::string>().substr(0, 4) == "red ");
  CHECK_THAT(found["begun"][1].get<std::string>(), Catch::Contains(" in no class"));
  CHECK(found["second"][0] == "bright");
  CHECK_THAT(found["second"][1].get<std::string>(), Catch::Contains("that classes before it take"));
  CHECK(found["empty"] == json({"blue3", false}));
  CHECK(found["order"] == json({"red", "blue", "bright"}));
  CHECK(found["refused"] == "a name without =");
  CHECK(found["twice"] == "There is a class red already.");
  CHECK_THAT(found["shown"].get<std::string>(), Catch::StartsWith("Class map"));
  CHECK(found["saved"] == "patches.slices.yaml");
  CHECK(found["own"][2] == "#ffee00");
  CHECK(found["own"][3] == "#123456");
  for (std::size_t i = 0; i < 2; ++i) CHECK(found["colors"][i] == found["own"][i]);
  CHECK(found["colors"][2] == "#123456");
  // What is in no class has a gray that is like none of theirs.
  CHECK(found["none"] == json({{128, 128, 128}, {255, 255, 255}}));
  CHECK(found["outside"][0] == found["outside"][1]);
  CHECK_THAT(found["command"].get<std::string>(),
             Catch::StartsWith("chalcedony slice patches.png --let \"warmth=lab.a + lab.b\" "
                               "--where \"red=hsv.h in 300..40 and hsv.s >= 30\" --where \"blue="));
  CHECK_THAT(found["told"].get<std::string>(), Catch::EndsWith("\ngrays=hsv.s <= 10"));
  // What is saved makes the same map, in the same colors.
  put_text(dir / "patches.slices.yaml", found["file"].get<std::string>());
  const json sliced =
      summary_of(run_tool(dir, {"slice", "patches.png", "--config", "patches.slices.yaml", "-o",
                                "out", "--summary", "json"}));
  CHECK(json(labels_in(dir / "out/patches.slices.png")) == found["labels"]);
  REQUIRE(sliced["selections"].size() == 4);
  for (std::size_t c = 0; c < 4; ++c) CHECK(sliced["selections"][c]["color"] == found["own"][c]);
  // And the page goes on from it.
  REQUIRE(run_tool(dir, {"tune", "patches.png", "--config", "patches.slices.yaml", "-o", "next"})
              .exit_code == 0);
  const json next = found_on_tune(dir, dir / "next/patches.tune.html", R"(
found.labels = [...kindOf].map(kind => labels[kind]);
)",
                                  "390,800");
  CHECK(next["labels"] == found["labels"]);
  CHECK(next["file"] == found["file"]);
  CHECK(next["wider"] <= 0);
}

TEST_CASE("limits like a known class are those that mask finds like it", "[cli][tune][browser]") {
  if (lacks_browser()) return;
  const TempDir dir;
  write_patches(dir);
  put_text(dir / "patches.samples.geojson", region_over(20, 20));
  std::vector<std::uint8_t> labels(kPatchesWide * kPatchesHigh, 0);
  for (std::size_t i = 0; i < labels.size(); ++i)
    labels[i] = static_cast<std::uint8_t>(i % kPatchesWide < 20 ? 1 : 2);
  write_labels(dir / "patches.classes.png", kPatchesWide, labels,
               {{1, "a=b", "#c02040"}, {2, "blue", "#2030b0"}});
  const std::string press = R"(
const known = i => part("shares").children[i].click();
)";
  REQUIRE(
      run_tool(dir, with(kTune, {"--classes", "patches.samples.geojson", "--where", "hsv.s >= 90"}))
          .exit_code == 0);
  const json found = found_on_tune(dir, dir / "out/patches.tune.html", press + R"(
known(0);
found.told = [state.classes.map(one => one.name), part("shares").children[0].textContent,
  part("shares").children[0].getAttribute("aria-pressed")];
)");
  const json like =
      summary_of(run_tool(dir, {"mask", "patches.png", "--like", "patches.samples.geojson:red",
                                "--channels", "hsv", "--summary", "json"}))["inputs"][0];
  CHECK(found["selection"] == like["where"]);
  CHECK(found["told"][0] == json({"red"}));
  CHECK(std::stod(found["told"][1].get<std::string>().substr(4)) > 90);
  CHECK(found["told"][2] == "true");
  // Others are put beside it, and one that is there is set anew.
  REQUIRE(run_tool(dir, with(kTune,
                             {"--classes", "patches.classes.png", "--where", "other=hsv.s >= 90"}))
              .exit_code == 0);
  const json two = found_on_tune(dir, dir / "out/patches.tune.html", press + R"(
known(0);
found.first = selectionText(current().limits, channels);
known(1);
state.classes[1].limits = {};
known(0);
found.again = selectionText(current().limits, channels);
found.names = state.classes.map(one => one.name);
found.colors = state.classes.map(one => one.color);
found.now = state.now;
)");
  CHECK(two["names"] == json({"other", "a-b", "blue"}));
  CHECK(two["colors"] == json({"", "#c02040", "#2030b0"}));
  CHECK(two["again"] == two["first"]);
  CHECK(two["now"] == 1);
  put_text(dir / "patches.slices.yaml", two["file"].get<std::string>());
  const json sliced = summary_of(run_tool(
      dir, {"slice", "patches.png", "--config", "patches.slices.yaml", "--summary", "json"}));
  CHECK(sliced["selections"][1]["name"] == "a-b");
}

TEST_CASE("limits on a page of tune become a class when they are named", "[cli][tune][browser]") {
  if (lacks_browser()) return;
  const TempDir dir;
  write_patches(dir);
  REQUIRE(run_tool(dir, with(kTune, {"--where", "hsv.s >= 30"})).exit_code == 0);
  const json found = found_on_tune(dir, dir / "out/patches.tune.html", R"(
found.alone = [part("classes").hidden, part("remove").hidden, part("file").textContent];
for (let i = 0; i < 4; ++i) press("m");
found.round = part("show").textContent;
part("name").value = "it's \"$HOME\"";
part("another").requestSubmit(part("add"));
found.command = part("command").textContent;
found.named = [part("classes").hidden, part("file").textContent, part("where").value];
part("remove").click();
found.removed = [part("classes").hidden, part("command").parentElement.hidden];
press("z", { ctrlKey: true });
part("name").value = "other";
part("another").requestSubmit(part("add"));
)");
  CHECK(found["alone"] == json({true, true, "patches.mask.yaml"}));
  CHECK_THAT(found["round"].get<std::string>(), Catch::StartsWith("Rest dimmed"));
  CHECK(found["named"] == json({false, "patches.slices.yaml", "it's \"$HOME\"=hsv.s >= 30"}));
  CHECK_THAT(found["command"].get<std::string>(),
             Catch::EndsWith("--where \"it's \\\"\\$HOME\\\"=hsv.s >= 30\" -o out/"));
  CHECK(found["removed"] == json({true, true}));
  // A class without limits is not saved.
  put_text(dir / "patches.slices.yaml", found["file"].get<std::string>());
  const json sliced = summary_of(run_tool(
      dir, {"slice", "patches.png", "--config", "patches.slices.yaml", "--summary", "json"}));
  REQUIRE(sliced["selections"].size() == 1);
  CHECK(sliced["selections"][0]["name"] == "it's \"$HOME\"");
}
