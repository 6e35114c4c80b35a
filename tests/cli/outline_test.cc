// `outline` at the built program: what its pages begin with, and what they take and save.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "core/color/ciede2000.h"
#include "core/color/css_color.h"
#include "core/color/space.h"
#include "io/document/sample_file.h"
#include "tests/support/browser.h"
#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

constexpr std::uint32_t kPaneWide = 60, kPaneHigh = 40;
const Words kOutline{"outline", "pane.png", "-o", "out"};
/// A polygon with a hole, a disc, a pixel and a guess.
const std::string kSamples =
    R"({"type":"FeatureCollection","chalcedony":"samples","width":60,"height":40,"features":[
{"type":"Feature","properties":{"class":"ruby","color":"#a01c2e"},"geometry":{"type":"Polygon",
 "coordinates":[[[2,2],[20.3,4.1],[17,19.5],[3,15],[2,2]],[[6,6],[12,6],[12,11],[6,6]]]}},
{"type":"Feature","properties":{"class":"ruby"},"geometry":{"type":"Polygon",
 "coordinates":[[[10,4],[30,4],[30,9],[10,9],[10,4]]]}},
{"type":"Feature","properties":{"class":"lead","radius":4.3},"geometry":{"type":"Point",
 "coordinates":[40.2,30.9]}},
{"type":"Feature","properties":{"class":"lead"},"geometry":{"type":"Point",
 "coordinates":[50,10]}},
{"type":"Feature","properties":{"class":"</script>?"},"geometry":{"type":"Polygon",
 "coordinates":[[[50,20],[54,20],[54,24],[50,24],[50,20]]]}}]})";
/// Guesses to be checked.
const std::string kGuesses =
    R"({"type":"FeatureCollection","width":60,"height":40,"features":[
{"type":"Feature","properties":{"class":"ruby?"},"geometry":{"type":"Point","coordinates":[5,5]}},
{"type":"Feature","properties":{"class":"lead?"},"geometry":{"type":"Point","coordinates":[9,9]}},
{"type":"Feature","properties":{"class":"sky?"},"geometry":{"type":"Point","coordinates":[30,9]}}]})";

struct Pane {
  explicit Pane(const TempDir& dir) {
    std::vector<std::uint8_t> rgb;
    for (std::uint32_t y = 0; y < kPaneHigh; ++y)
      for (std::uint32_t x = 0; x < kPaneWide; ++x)
        for (const std::uint8_t code : {x * 4, y * 6, 90u}) rgb.push_back(code);
    write_rgb(dir / "pane.png", kPaneWide, kPaneHigh, rgb);
    put_text(dir / "pane.samples.geojson", kSamples);
  }
};

/// What a page begins with.
json begun_on(const std::filesystem::path& page) {
  const std::string text = text_of_file(page), begin = "id=\"begun\">";
  const std::size_t from = text.find(begin) + begin.size();
  return json::parse(text.substr(from, text.find("</script>", from) - from));
}

/// What a page tells in `found` once `work` was done on it by pointer and keys.
json found_on(const TempDir& dir, const std::filesystem::path& page, const std::string& work,
              const std::string& size = "1280,800") {
  const std::string hands = R"(
drawing.setPointerCapture = () => {};
const press = (key, more) => dispatchEvent(new KeyboardEvent("keydown", { key, ...more }));
const point = (kind, [x, y]) => {
  const frame = sheet.getBoundingClientRect();
  drawing.dispatchEvent(new PointerEvent(kind, { button: 0, pointerId: 1, bubbles: true,
    clientX: frame.left + x * zoom, clientY: frame.top + y * zoom }));
};
const drag = (...places) => {
  point("pointerdown", places[0]);
  for (const place of places.slice(1)) point("pointermove", place);
  point("pointerup", places[places.length - 1]);
};
const named = (name, button) => { part("name").value = name; part("another").requestSubmit(part(button)); };
const list = id => [...part(id).querySelectorAll("button")].map(b => b.textContent);
)";
  return found_on_page(
      dir, page, hands + work + "found.saved = samplesText(state.regions, state.classes, size);",
      size);
}

/// The pixels of each class, as train counts them in a sample file.
std::map<std::string, std::uint64_t> trained_pixels(const TempDir& dir, const std::string& file) {
  const json told =
      summary_of(run_tool(dir, {"train", "pane.png", "--samples", file, "--summary", "json"}));
  std::map<std::string, std::uint64_t> pixels;
  for (const json& one : told["model"]["classes"]) pixels[one["name"]] = one["pixels"];
  return pixels;
}

}  // namespace

TEST_CASE("a page to outline on begins with the samples and classes that are given",
          "[cli][outline]") {
  const TempDir dir;
  const Pane pane(dir);
  const json empty = summary_of(run_tool(dir, with(kOutline, {"--summary", "json"})))["inputs"][0];
  CHECK(empty["regions"] == 0);
  CHECK(empty["pixels_per_cell"] == 1);
  CHECK_FALSE(empty.contains("samples"));
  const json nothing = begun_on(dir / "out/pane.outline.html");
  CHECK(nothing["samples"]["features"].empty());
  CHECK(nothing["samples"]["width"] == kPaneWide);
  CHECK(nothing["classes"].empty());

  const Words with_samples =
      with(kOutline, {"--samples", ".", "--class", "sky", "--class", "lead=#008080"});
  const Outcome run = run_tool(dir, with_samples);
  CHECK(run.exit_code == 0);
  CHECK_THAT(run.out, Catch::StartsWith("pane.png: 60 x 40 pixels, seen in full\n"
                                        "goes on from ./pane.samples.geojson: 5 regions, 1 of them "
                                        "to check\n") &&
                          Catch::Contains("  ruby              2\n") &&
                          Catch::Contains("  sky               0\n"));
  const json begun = begun_on(dir / "out/pane.outline.html");
  CHECK(begun["file"] == "pane.samples.geojson");
  CHECK(begun["classes"] == json::parse(R"([{"name":"sky","color":""},
      {"name":"lead","color":"#008080"},{"name":"ruby","color":"#a01c2e"},
      {"name":"</script>","color":""}])"));
  // The regions are those of the file.
  const SampleSet as_read = parse_samples(kSamples, kPaneWide, kPaneHigh),
                  as_begun = parse_samples(begun["samples"].dump(), kPaneWide, kPaneHigh);
  REQUIRE(as_begun.shapes.size() == as_read.shapes.size());
  for (std::size_t i = 0; i < as_read.shapes.size(); ++i) {
    CHECK(as_begun.shapes[i].rings == as_read.shapes[i].rings);
    CHECK(as_begun.classes[as_begun.shapes[i].sample_class].name ==
          as_read.classes[as_read.shapes[i].sample_class].name);
  }
  const std::string page = text_of_file(dir / "out/pane.outline.html");
  CHECK(run_tool(dir, {"outline", "pane.png", "--samples", ".", "--class", "sky", "--class",
                       "lead=#008080", "-o", "again", "--threads", "1"})
            .exit_code == 0);
  CHECK(text_of_file(dir / "again/pane.outline.html") == page);
}

TEST_CASE("pages of several pictures have each its own samples, or none", "[cli][outline]") {
  const TempDir dir;
  const Pane pane(dir);
  std::filesystem::copy_file(dir / "pane.png", dir / "pane-2.png");
  const Words both{"outline", "pane.png", "pane-2.png", "-o", "out", "--summary", "json"};
  const json told = summary_of(run_tool(dir, with(both, {"--samples", "*.samples.geojson"})));
  CHECK(told["inputs"][0]["samples"] == "pane.samples.geojson");
  CHECK(told["inputs"][0]["guesses"] == 1);
  CHECK_FALSE(told["inputs"][1].contains("samples"));
  CHECK(told["outputs"].size() == 2);
  // A picture that is larger than its view is averaged.
  write_rgb(dir / "wide.png", 250, 8, std::vector<std::uint8_t>(250 * 8 * 3, 70));
  const json wide = summary_of(
      run_tool(dir, {"outline", "wide.png", "--view", "100", "-o", "out", "--summary", "json"}));
  CHECK(wide["inputs"][0]["pixels_per_cell"] == 2.5);
}

TEST_CASE("outline refuses what it cannot begin with, and leaves nothing", "[cli][outline]") {
  const TempDir dir;
  const Pane pane(dir);
  std::filesystem::copy_file(dir / "pane.png", dir / "pane-2.png");
  const auto refused = [&](const Words& words, int code, const std::string& message) {
    check_error(run_tool(dir, with({"outline", "pane.png"}, with(words, {"-o", "out"}))), code,
                message);
    check_nothing_in(dir, "out");
  };
  put_text(dir / "small.geojson", R"({"type":"FeatureCollection","width":30,"height":20,
    "features":[{"type":"Feature","properties":{"class":"a"},
    "geometry":{"type":"Point","coordinates":[1,1]}}]})");
  put_text(dir / "far.geojson", R"({"type":"FeatureCollection","features":[{"type":"Feature",
    "properties":{"class":"a"},"geometry":{"type":"Point","coordinates":[61,1]}}]})");
  refused({"--samples", "small.geojson"}, 1,
          "small.geojson: its samples were drawn on a picture of 30x20, this one is 60x40");
  refused({"--samples", "far.geojson"}, 1, "far.geojson: a sample of class 'a' reaches outside");
  refused({"--samples", "pane.png"}, 1, "pane.png: is no GeoJSON");
  refused({"pane-2.png", "--samples", "pane.samples.geojson"}, 2, "--samples");
  write_labels(dir / "small.classes.png", 2, {1, 2}, {{1, "a", "#a00000"}, {2, "b", "#00a000"}});
  refused({"--map", "small.classes.png"}, 1,
          "small.classes.png: is 2x1, the picture 60x40; give the class map of this picture");
  refused({"pane-2.png", "--map", "small.classes.png"}, 2, "--map");
  refused({"--view", "99"}, 2, "--view");
  refused({"--view", "4001"}, 2, "--view");
  refused({"--class", "ruby=redd"}, 2, "--class: ");
  refused({"--class", "=red"}, 2, "--class: '=red' is not NAME=VALUE");
  const json fitted = summary_of(run_tool(
      dir,
      with(kOutline, {"--samples", "small.geojson", "--rescale-samples", "--summary", "json"})));
  CHECK(fitted["inputs"][0]["regions"] == 1);
  CHECK(begun_on(dir /
                 "out/pane.outline.html")["samples"]["features"][0]["geometry"]["coordinates"] ==
        json({2, 2}));
}

TEST_CASE("a page to outline on takes regions by pointer, keys and numbers",
          "[cli][outline][browser]") {
  if (lacks_browser()) return;
  const TempDir dir;
  const Pane pane(dir);
  REQUIRE(run_tool(dir, kOutline).exit_code == 0);
  const json found = found_on(dir, dir / "out/pane.outline.html", R"(
drag([5, 5], [9, 9]);
found.unnamed = part("state").textContent;
named("ruby", "add");
drag([5.2, 5.8], [9, 9], [14.6, 11.3]);
press("d");
named("lead", "add");
drag([40.04, 20], [44, 23]);
drag([30.7, 30.2]);
point("pointermove", [12.5, 7.5]);
found.under = part("under").textContent;
press("p");
press("1");
for (const place of [[20, 20], [30, 20], [31, 26], [30, 30]]) drag(place);
press("Backspace");
drag([20, 30]);
drag([20, 30]);
drawing.dispatchEvent(new MouseEvent("dblclick"));
drag([50, 5], [52, 5], [54, 8], [51, 10]);
press("Enter");
press("r");
drag([1, 1], [58, 38]);
press("z", { ctrlKey: true });
drag([1, 1], [58, 38]);
press("Escape");
part("undo").click();
part("place").value = "0,38,60,2";
part("numbers").requestSubmit();
part("place").value = "0,39,60,2";
part("numbers").requestSubmit();
found.refused = part("place").validationMessage;
const whole = zoom;
press("+");
found.nearer = sheet.getBoundingClientRect().width / (60 * whole);
press("w");
found.whole = sheet.getBoundingClientRect().width / (60 * whole);
found.classes = list("classes");
found.regions = list("regions");
found.state = part("state").textContent;
part("anew").click();
found.anew = part("state").textContent;
part("undo").click();
)");
  INFO(found.dump(1));
  CHECK(found["unnamed"] == "Name a class first: it says what the region is.");
  CHECK(found["under"] == "x 12, y 7, #302a5a");
  CHECK_THAT(found["refused"].get<std::string>(), Catch::Contains("within the picture"));
  CHECK(found["state"] == "6 regions");
  CHECK(found["anew"] == "0 regions");
  CHECK(found["nearer"].get<double>() == Approx(1.5));
  CHECK(found["whole"].get<double>() == Approx(1));
  CHECK(found["wider"] <= 0);
  put_text(dir / "saved.geojson", found["saved"].get<std::string>());
  const SampleSet saved = read_samples(dir / "saved.geojson", kPaneWide, kPaneHigh);
  REQUIRE(saved.shapes.size() == 6);
  CHECK(saved.shapes[0].rings.at(0) == rectangle_ring(5, 5, 10, 7));
  CHECK(saved.shapes[1].point == Position{40, 20});
  CHECK(saved.shapes[1].radius == Approx(5).margin(0.051));
  CHECK(saved.shapes[2].point == Position{30.5, 30.5});
  CHECK(saved.shapes[2].radius == 0);
  CHECK(saved.shapes[3].rings.at(0) ==
        std::vector<Position>{{20, 20}, {30, 20}, {31, 26}, {20, 30}, {20, 20}});
  CHECK(saved.shapes[4].rings.at(0).size() == 5);
  CHECK(saved.shapes[5].rings.at(0) == rectangle_ring(0, 38, 60, 2));
  // The page counts pixels as train does.
  const auto pixels = trained_pixels(dir, "saved.geojson");
  REQUIRE(found["classes"].size() == 2);
  CHECK(found["classes"][0] == "ruby, " + std::to_string(pixels.at("ruby")) + " pixels in 4" + "1");
  CHECK(found["classes"][1] == "lead, " + std::to_string(pixels.at("lead")) + " pixels in 2" + "2");
  CHECK(found["regions"][2] == "lead, 1 pixel");
  // What was drawn is remembered, on this page alone.
  for (const char* size : {"1280,800", "390,800"}) {
    const json again = found_on(dir, dir / "out/pane.outline.html", "", size);
    CHECK(again["saved"] == found["saved"]);
    CHECK(again["wider"] <= 0);
  }
  std::filesystem::rename(dir / "out/pane.outline.html", dir / "out/before.html");
  REQUIRE(run_tool(dir, with(kOutline, {"--class", "ruby"})).exit_code == 0);
  CHECK_FALSE(found_on(dir, dir / "out/pane.outline.html", "")["saved"] == found["saved"]);
}

TEST_CASE("corners of regions and ends of discs are dragged on the page",
          "[cli][outline][browser]") {
  if (lacks_browser()) return;
  const TempDir dir;
  const Pane pane(dir);
  REQUIRE(run_tool(dir, with(kOutline, {"--samples", "pane.samples.geojson"})).exit_code == 0);
  const json found = found_on(dir, dir / "out/pane.outline.html", R"(
press("c");
drag([3, 10]);
found.handles = drawing.querySelectorAll(".handle").length;
drag([12, 11], [15, 14], [15, 14.04]);
drag([20.3, 4.1], [24, 3]);
found.still = chosen;
drag([38, 31]);
drag([44.5, 30.9], [46.2, 30.9]);
drag([50.5, 10.5]);
drag([50.6, 10.4], [52.6, 12.4]);
)");
  INFO(found.dump(1));
  CHECK(found["handles"] == 2);
  CHECK(found["still"] == 0);
  const SampleSet saved = parse_samples(found["saved"].get<std::string>(), kPaneWide, kPaneHigh);
  const std::vector<std::vector<Position>> polygon{{{2, 2}, {24, 3}, {17, 19.5}, {3, 15}, {2, 2}},
                                                   {{6, 6}, {12, 6}, {15, 14}, {6, 6}}};
  CHECK(saved.shapes[0].rings == polygon);
  CHECK(saved.shapes[1] == parse_samples(kSamples, kPaneWide, kPaneHigh).shapes[1]);
  CHECK(saved.shapes[2].radius == Approx(6));
  CHECK(saved.shapes[2].point == Position{40.2, 30.9});
  // A pixel has no handle: it is moved.
  CHECK(saved.shapes[3].point.x == Approx(52.0).margin(0.11));
}

TEST_CASE("regions of a file are confirmed, named anew, moved and removed on the page",
          "[cli][outline][browser]") {
  if (lacks_browser()) return;
  const TempDir dir;
  const Pane pane(dir);
  std::vector<std::uint8_t> labels(kPaneWide * kPaneHigh, 1);
  labels[0] = 2;
  write_labels(dir / "pane.classes.png", kPaneWide, labels,
               {{1, "ruby", "#a01c2e"}, {2, "moss", "#406010"}});
  const json told = summary_of(run_tool(dir, with(kOutline, {"--samples", "pane.samples.geojson",
                                                             "--map", ".", "--summary", "json"})));
  CHECK(told["inputs"][0]["map"] == "./pane.classes.png");
  const json found = found_on(dir, dir / "out/pane.outline.html", R"(
found.before = part("state").textContent;
found.classes = list("classes");
found.maps = [0, 1, 2].map(() => { press("m"); return part("map").hidden + " " + part("map").style.opacity; });
found.mapWide = part("map").naturalWidth;
found.begun = samplesText(state.regions, state.classes, size);
press("n");
found.chosen = state.regions[chosen].name;
press("Enter");
found.after = part("state").textContent;
found.guesses = part("guesses").hidden;
press("w");
press("c");
drag([52, 22], [53, 22], [49, 25]);
drag([40, 31]);
named("patina", "add");
drag([50.5, 10.5]);
press("Delete");
press("Escape");
press("1");
named("Ruby glass", "rename");
)");
  INFO(found.dump(1));
  CHECK(found["before"] == "4 regions, 1 guess to check");
  CHECK(found["chosen"] == "</script>");
  CHECK(found["maps"] == json({"false 0.5", "false 1", "true 0"}));
  CHECK(found["mapWide"] == kPaneWide);
  CHECK(found["after"] == "5 regions");
  CHECK(found["guesses"] == true);
  const auto counted = trained_pixels(dir, "pane.samples.geojson");
  CHECK(found["classes"][0] == "ruby, " + std::to_string(counted.at("ruby")) + " pixels in 21");
  CHECK(found["classes"][1] == "moss2");
  CHECK(found["classes"][2] == "lead, " + std::to_string(counted.at("lead")) + " pixels in 23");
  // What is not touched is saved as it was read.
  const SampleSet begun = parse_samples(found["begun"].get<std::string>(), kPaneWide, kPaneHigh),
                  read = parse_samples(kSamples, kPaneWide, kPaneHigh);
  CHECK(begun.shapes == read.shapes);
  CHECK(begun.classes[2].name == "</script>?");
  const SampleSet saved = parse_samples(found["saved"].get<std::string>(), kPaneWide, kPaneHigh);
  REQUIRE(saved.shapes.size() == 4);
  std::vector<std::string> names;
  for (const SampleShape& shape : saved.shapes)
    names.push_back(saved.classes[shape.sample_class].name);
  CHECK(names == std::vector<std::string>{"Ruby glass", "Ruby glass", "patina", "</script>"});
  CHECK(saved.shapes[3].rings.at(0) == rectangle_ring(47, 23, 4, 4));
  CHECK(saved.classes[0].color == "#a01c2e");
  // A class that has no color yet takes one unlike all others.
  for (std::size_t a = 0; a < saved.classes.size(); ++a)
    for (std::size_t b = 0; b < a; ++b)
      CHECK(ciede2000(css_color(saved.classes[a].color).in(spaces::kLab),
                      css_color(saved.classes[b].color).in(spaces::kLab)) > 20);
}

TEST_CASE("one guess after the other is named, confirmed or removed", "[cli][outline][browser]") {
  if (lacks_browser()) return;
  const TempDir dir;
  const Pane pane(dir);
  put_text(dir / "pane.suggested.geojson", kGuesses);
  REQUIRE(run_tool(dir, with(kOutline, {"--samples", "pane.suggested.geojson"})).exit_code == 0);
  const json found = found_on(dir, dir / "out/pane.outline.html", R"(
found.asked = [];
for (const key of ["n", "2", "Enter", "Delete"]) {
  press(key);
  found.asked.push(part("hint").textContent.split("?")[0]);
}
found.left = chosen;
)");
  INFO(found.dump(1));
  CHECK(found["asked"][0] == "Is it ruby");
  CHECK(found["asked"][1] == "Is it lead");
  CHECK(found["asked"][2] == "Is it sky");
  CHECK(found["left"] == -1);
  const SampleSet saved = parse_samples(found["saved"].get<std::string>(), kPaneWide, kPaneHigh);
  REQUIRE(saved.shapes.size() == 2);
  REQUIRE(saved.classes.size() == 1);
  CHECK(saved.classes[0].name == "lead");
}
