// `truth` at the built program: pixels drawn to be looked at, and maps assessed by what was said.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>
#include <set>

#include "io/document/truth_table.h"
#include "tests/support/browser.h"
#include "tests/support/other_writers.h"
#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

constexpr std::uint32_t kWidth = 60, kHeight = 40;
const std::vector<LegendEntry> kGlass{
    {1, "ruby", "#c02030"}, {2, "lead", "#404040"}, {5, "sky", "#3060c0"}};

/// What is so: two classes in halves and a third in a corner; a map that takes some of the first
/// for the second, and leaves some of the second out; and the picture of both.
struct Scene {
  std::vector<std::uint8_t> truth, mapped;

  explicit Scene(const TempDir& dir) {
    std::vector<std::uint8_t> rgb;
    for (std::uint32_t y = 0; y < kHeight; ++y)
      for (std::uint32_t x = 0; x < kWidth; ++x) {
        truth.push_back(x < 10 && y < 10 ? 5 : x < 30 ? 1 : 2);
        mapped.push_back(x >= 24 && x < 30 ? 2 : x >= 56 ? 0 : truth.back());
        for (const std::uint8_t code : {x * 4, y * 6, 90u}) rgb.push_back(code);
      }
    write_labels(dir / "pane.classes.png", kWidth, mapped, kGlass);
    write_labels(dir / "pane.reference.png", kWidth, truth, kGlass);
    write_rgb(dir / "pane.png", kWidth, kHeight, rgb);
  }

  /// Says of every pixel of a table what it is.
  void fill(const std::filesystem::path& path) const {
    TruthTable table = read_truth_table(path);
    for (TruthPixel& pixel : table.pixels) {
      const std::uint8_t label = truth[pixel.y * kWidth + pixel.x];
      pixel.name = label == 1 ? "ruby" : label == 2 ? "LEAD" : "sky";
    }
    write_truth_table(path, table);
  }
};

const Words kTruth{"truth", "pane.classes.png", "--image", "pane.png"};
const std::vector<Words> kDesigns{{"--count", "90", "--stratified", "equal"},
                                  {"--fraction", "0.05"},
                                  {"--stratified", "ruby=20,lead=30,unclassified=5"},
                                  {"--every", "7"}};

json assessed(const TempDir& dir, const Words& words) {
  return summary_of(
      run_tool(dir, with({"assess", "pane.classes.png", "--summary", "json"}, words)));
}

}  // namespace

TEST_CASE("truth draws the pixels that assess would, and assess by them says the same",
          "[cli][truth]") {
  const TempDir dir;
  const Scene scene(dir);
  for (const Words& design : kDesigns) {
    INFO(design[1]);
    const json told = summary_of(run_tool(
        dir, with(kTruth, with(design, {"--seed", "3", "-o", "out", "--summary", "json"}))));
    const TruthTable table = read_truth_table(dir / "out/pane.classes.truth.csv");
    CHECK(told["inputs"][0]["drawn"] == table.pixels.size());
    scene.fill(dir / "out/pane.classes.truth.csv");
    const json by_table =
        assessed(dir, {"--reference", "out/pane.classes.truth.csv", "-o", "by-table"})["inputs"][0];
    const json by_draw =
        assessed(dir, with({"--reference", "pane.reference.png", "--seed", "3", "-o", "drawn"},
                           design))["inputs"][0];
    const auto drawn = rows_of(dir / "drawn/sampled.csv");
    REQUIRE(drawn.size() == table.pixels.size());
    for (std::size_t i = 0; i < drawn.size(); ++i) {
      CHECK(drawn[i].at("x") == std::to_string(table.pixels[i].x));
      CHECK(drawn[i].at("y") == std::to_string(table.pixels[i].y));
    }
    // Where the map has it right and where not is seen as of a sample.
    const auto sampled = rows_of(dir / "by-table/sampled.csv");
    REQUIRE(sampled.size() == drawn.size());
    std::set<std::string> places, drawn_places;
    for (std::size_t i = 0; i < drawn.size(); ++i) {
      places.insert(sampled[i].at("x") + "," + sampled[i].at("y") + " " + sampled[i].at("mapped"));
      drawn_places.insert(drawn[i].at("x") + "," + drawn[i].at("y") + " " + drawn[i].at("mapped"));
    }
    CHECK(places == drawn_places);
    CHECK(std::filesystem::exists(dir / "by-table/sampled.figure.png"));
    CHECK(by_table["assessed"] == by_draw["assessed"]);
    CHECK(by_table["overall"] == by_draw["overall"]);
    for (const char* field : {"adjusted_overall", "adjusted_overall_standard_error"}) {
      REQUIRE(by_table.contains(field) == by_draw.contains(field));
      if (by_draw.contains(field))
        CHECK(by_table[field].get<double>() == Approx(by_draw[field].get<double>()));
    }
  }
}

TEST_CASE("what truth draws is counted by class, and does not hang on threads", "[cli][truth]") {
  const TempDir dir;
  const Scene scene(dir);
  const Words equal = with(kTruth, {"--count", "40", "--stratified", "equal"});
  const Outcome text = run_tool(dir, with(equal, {"-o", "out"}));
  CHECK(text.exit_code == 0);
  CHECK_THAT(text.out, Catch::StartsWith(
                           "pane.classes.png: 40 pixels of pane.png drawn, stratified equal\n") &&
                           Catch::Contains("  sky              100     10\n") &&
                           Catch::Contains("  unclassified     160     10\n") &&
                           Catch::Contains("give it to assess as --reference"));
  for (const char* threads : {"1", "3"}) {
    run_tool(dir, with(equal, {"-o", threads, "--threads", threads}));
    for (const char* file : {"/pane.classes.truth.csv", "/pane.classes.truth.html"})
      CHECK(text_of_file(dir / (threads + std::string(file))) ==
            text_of_file(dir / ("out" + std::string(file))));
  }
  // Only pixels that count.
  const json part = summary_of(
      run_tool(dir, with(kTruth, {"--region", "0,0,10,10", "-o", "part", "--summary", "json"})));
  CHECK(part["inputs"][0]["design"] == "random");
  CHECK(part["inputs"][0]["drawn"] == 100);
  for (const TruthPixel& pixel : read_truth_table(dir / "part/pane.classes.truth.csv").pixels)
    CHECK((pixel.x < 10 && pixel.y < 10));
  // Of a folder of maps each with its own picture.
  std::filesystem::create_directory(dir / "maps");
  for (const char* name : {"pane", "pane-2"}) {
    std::filesystem::copy_file(dir / "pane.classes.png",
                               dir / "maps" / (name + std::string(".classes.png")));
    if (name != std::string("pane"))
      std::filesystem::copy_file(dir / "pane.png", dir / (name + std::string(".png")));
  }
  REQUIRE(
      run_tool(dir, {"truth", "maps", "--image", ".", "--count", "300", "-o", "many"}).exit_code ==
      0);
  for (const char* name : {"pane", "pane-2"}) {
    scene.fill(dir / "many" / (name + std::string(".classes.truth.csv")));
    CHECK(std::filesystem::exists(dir / "many" / (name + std::string(".classes.truth.html"))));
  }
  CHECK_FALSE(std::filesystem::exists(dir / "many/truth.csv"));
  const json both =
      summary_of(run_tool(dir, {"assess", "maps", "--reference", "many", "--summary", "json"}));
  CHECK(both["together"]["assessed"] == 600);
  CHECK(both["inputs"][0]["against"] == "many/pane-2.classes.truth.csv");
  CHECK(both["inputs"][0].contains("adjusted_overall"));
  // As many from a small map as from a large one do not tell of the pixels of both.
  CHECK_FALSE(both["together"].contains("adjusted_overall"));
  CHECK_FALSE(both["together"].contains("between_maps"));
}

TEST_CASE("tables of true classes say what cannot be told from them", "[cli][truth]") {
  const TempDir dir;
  const Scene scene(dir);
  REQUIRE(run_tool(dir, with(kTruth, {"--count", "40", "--stratified", "equal", "-o", "."}))
              .exit_code == 0);
  const Words by_it{"assess", "pane.classes.png", "--reference", "pane.classes.truth.csv", "-o",
                    "out"};
  check_error(run_tool(dir, by_it), 1,
              "pane.classes.truth.csv: says of no pixel what it is; fill in the column class");
  check_nothing_in(dir, "out");
  scene.fill(dir / "pane.classes.truth.csv");
  TruthTable table = read_truth_table(dir / "pane.classes.truth.csv");
  for (std::size_t i = 0; i < 5; ++i) table.pixels[i].name.clear();
  write_truth_table(dir / "some.csv", table);
  const Outcome some = run_tool(dir, {"assess", "pane.classes.png", "--reference", "some.csv"});
  CHECK_THAT(some.err, Catch::Contains("some.csv: 5 of 40 pixels have no class and are left out"));
  CHECK_THAT(some.out, Catch::Contains("35 pixels assessed, drawn: stratified"));
  // Another map has other classes at some of these pixels.
  const Outcome other =
      run_tool(dir, {"assess", "pane.reference.png", "--reference", "pane.classes.truth.csv"});
  CHECK_THAT(other.err,
             Catch::Contains("pane.classes.truth.csv: its pixels were drawn from the classes of "
                             "another map, so they do not stand for all pixels of "
                             "pane.reference.png"));
  CHECK_THAT(other.out, !Catch::Contains("by the areas of the map"));
  // Pixels somebody chose are no sample.
  put_text(dir / "mine.csv", "x,y,class\n1,1,sky\n20,20,ruby\n26,1,ruby\n");
  const Words by_hand{"assess", "pane.classes.png", "--reference", "mine.csv"};
  const Outcome mine = run_tool(dir, by_hand);
  CHECK_THAT(mine.out, Catch::Contains("3 pixels assessed, drawn: by hand") &&
                           !Catch::Contains("by the areas of the map"));
  // They are worked through as drawn ones are.
  const json shown = summary_of(
      run_tool(dir, with(by_hand, {"--show", "2", "--summary", "json"})))["inputs"][0]["shown"];
  REQUIRE(shown.size() == 2);
  CHECK(shown[1]["x"] == 26);
  CHECK(shown[1]["mapped"] == "lead");
  CHECK(shown[1]["reference"] == "ruby");
  put_text(dir / "far.csv", "x,y,class\n1,40,sky\n");
  check_error(run_tool(dir, {"assess", "pane.classes.png", "--reference", "far.csv", "-o", "out"}),
              1, "far.csv: has the pixel 1,40, and the map is 60x40; give the table of this map");
  check_nothing_in(dir, "out");
}

TEST_CASE("truth refuses what it cannot draw from, and leaves nothing", "[cli][truth]") {
  const TempDir dir;
  const Scene scene(dir);
  write_rgb(dir / "small.png", 2, 1, {1, 2, 3, 4, 5, 6});
  write_labels(dir / "mask.png", 2, {255, 0});
  const auto refused = [&](const Words& words, int code, const std::string& message) {
    check_error(run_tool(dir, with({"truth"}, with(words, {"-o", "out"}))), code, message);
    check_nothing_in(dir, "out");
  };
  refused({"pane.classes.png"}, 2,
          "truth needs --image; name the picture in which the pixels are looked at");
  refused({"pane.classes.png", "--image", "small.png"}, 1,
          "small.png: is 2x1, the map 60x40; name the picture that the map is of");
  refused({"mask.png", "--image", "small.png"}, 1,
          "mask.png: is a mask, which has one class only; give a class map");
  refused({"pane.classes.png", "--image", "pane.png", "--stratified", "rubi=3"}, 1,
          "pane.classes.png: --stratified: the map has no class 'rubi'; did you mean 'ruby'?");
  refused({"pane.classes.png", "--image", "pane.png", "--stratified", "ruby=0"}, 1,
          "pane.classes.png: no pixel would be drawn; ask for more pixels, or of other classes");
  refused({"pane.classes.png", "--image", "pane.png", "--every", "9", "--region", "0,0,1,1",
           "--seed", "2"},
          1, "pane.classes.png: no pixel that counts lies on the grid; make --every smaller");
  refused({"pane.classes.png", "pane.reference.png", "--image", "pane.png"}, 2, "--image");
  const Outcome few = run_tool(dir, with(kTruth, {"--stratified", "sky=120"}));
  CHECK_THAT(few.err, Catch::Contains("only 100 of 120 pixels can be drawn"));
}

TEST_CASE("the page of truth takes what is said of each pixel", "[cli][truth][browser]") {
  if (lacks_browser()) return;
  const TempDir dir;
  const Scene scene(dir);
  REQUIRE(run_tool(dir, with(kTruth, {"--count", "4", "-o", "out"})).exit_code == 0);
  const std::string checks = R"(
const press = key => dispatchEvent(new KeyboardEvent("keydown", { key }));
found.before = part("state").textContent;
found.begin = part("where").textContent;
found.classes = [...part("classes").children].map(b => b.textContent);
part("classes").children[1].click();
press("3");
press("0");
part("name").value = "Moss, dry";
part("another").requestSubmit();
press("ArrowLeft");
found.pressed = [...part("classes").children].map(b => b.getAttribute("aria-pressed")).join();
found.end = part("where").textContent;
found.state = part("state").textContent;
found.table = decodeURIComponent(part("save").href.split(",").slice(1).join(","));
found.images = [...document.images].filter(i => i.complete && i.naturalWidth > 0 && i.alt).length;
)";
  for (const char* size : {"1280,800", "390,800"}) {
    const json found = found_on_page(dir, dir / "out/pane.classes.truth.html", checks, size);
    INFO(found.dump(1));
    CHECK_THAT(found["begin"].get<std::string>(), Catch::StartsWith("Pixel 1 of 4, at "));
    // What was said is remembered when the page is opened again.
    const bool first = size == std::string("1280,800");
    CHECK(found["before"] ==
          (first ? "0 of 4 have a class" : "3 of 4 have a class, 1 cannot be told"));
    json classes({"ruby1", "lead2", "sky3"});
    if (!first) classes.push_back("Moss, dry4");
    CHECK(found["classes"] == classes);
    CHECK_THAT(found["end"].get<std::string>(), Catch::StartsWith("Pixel 3 of 4, at "));
    CHECK(found["pressed"] == "false,false,false,false");
    CHECK(found["state"] == "3 of 4 have a class, 1 cannot be told");
    CHECK(found["images"] == 2);
    CHECK(found["wider"] <= 0);
    put_text(dir / "saved.csv", found["table"].get<std::string>());
    const TruthTable empty = read_truth_table(dir / "out/pane.classes.truth.csv"),
                     saved = read_truth_table(dir / "saved.csv");
    REQUIRE(saved.pixels.size() == 4);
    CHECK(saved.drawn == TruthDrawn::kRandom);
    const std::vector<std::string> said{"lead", "sky", "", "Moss, dry"};
    for (std::size_t i = 0; i < 4; ++i) {
      CHECK(saved.pixels[i].x == empty.pixels[i].x);
      CHECK(saved.pixels[i].y == empty.pixels[i].y);
      CHECK(saved.pixels[i].name == said[i]);
    }
  }
}
