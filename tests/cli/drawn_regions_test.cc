// Regions of a sample file as an input where class maps are.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>
#include <string>

#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

std::string rectangle(const std::string& name, int left, int top, int right, int bottom,
                      const std::string& color = "") {
  const auto corner = [](int x, int y) { return json{x, y}; };
  json properties{{"class", name}};
  if (!color.empty()) properties["color"] = color;
  const json ring{corner(left, top), corner(right, top), corner(right, bottom),
                  corner(left, bottom), corner(left, top)};
  return json{{"type", "Feature"},
              {"properties", properties},
              {"geometry", {{"type", "Polygon"}, {"coordinates", json::array({ring})}}}}
      .dump();
}

void write_regions(const std::filesystem::path& file, const std::string& features,
                   const std::string& size = R"("width":8,"height":4,)") {
  put_text(file, R"({"type":"FeatureCollection",)" + size + R"("features":[)" + features + "]}");
}

/// The same as regions and as a class map: two of ruby, one of lead.
void write_both(const TempDir& dir) {
  write_regions(dir / "panes.geojson", rectangle("ruby", 0, 0, 2, 3, "#c00000") + "," +
                                           rectangle("lead", 3, 0, 5, 4) + "," +
                                           rectangle("ruby", 6, 1, 8, 2));
  write_labels(dir / "panes.png", 8, {1, 1, 0, 2, 2, 0, 0, 0, 1, 1, 0, 2, 2, 0, 1, 1,  //
                                      1, 1, 0, 2, 2, 0, 0, 0, 0, 0, 0, 2, 2, 0, 0, 0},
               {{1, "ruby", "#c00000"}, {2, "lead", "#508484"}});
  write_rgb(dir / "photo.png", 8, 4, random_bytes(8 * 4 * 3));
}

}  // namespace

TEST_CASE("drawn regions are measured like the map they make", "[cli][measure][drawn]") {
  const TempDir dir;
  write_both(dir);
  const Words words{"--image", "photo.png", "--outlines", "--parts", "--figures", "none"};
  for (const std::string input : {"panes.geojson", "panes.png"})
    REQUIRE(run_tool(dir, with({"measure", input, "-o", input + ".out"}, words)).exit_code == 0);
  for (const char* table : {"regions.csv", "sizes.csv", "parts.csv"}) {
    const std::string name = std::string("panes.") + table;
    CHECK(text_of_file(dir / "panes.geojson.out" / name) ==
          text_of_file(dir / "panes.png.out" / name));
  }
  CHECK(rows_of(dir / "panes.geojson.out/panes.regions.csv").size() == 3);
}

TEST_CASE("drawn regions become a class map, and are held against another", "[cli][drawn]") {
  const TempDir dir;
  write_both(dir);
  REQUIRE(run_tool(dir, {"tidy", "panes.geojson", "--steps", "drop 1", "-o", "out"}).exit_code ==
          0);
  CHECK(labels_in(dir / "out/panes.tidy.png") == labels_in(dir / "panes.png"));
  write_regions(dir / "later.geojson", rectangle("ruby", 0, 0, 1, 3));
  const auto changes = [&](const std::string& first, const std::string& second) {
    return summary_of(
        run_tool(dir, {"changes", first, second, "--summary", "json"}))["inputs"][0]["steps"][0];
  };
  const json told = changes("panes.geojson", "later.geojson"),
             as_map = changes("panes.png", "later.geojson");
  CHECK(told["classes"] == as_map["classes"]);
  CHECK(told["changed"] == 3 + 8 + 2);
  const Words truth{"--image", "photo.png", "--count", "5", "--summary", "json"};
  const json drawn = summary_of(run_tool(dir, with({"truth", "panes.geojson"}, truth)));
  CHECK(drawn["inputs"][0]["classes"] ==
        summary_of(run_tool(dir, with({"truth", "panes.png"}, truth)))["inputs"][0]["classes"]);
}

TEST_CASE("of drawn regions guesses and what two classes share have no class", "[cli][drawn]") {
  const TempDir dir;
  write_regions(dir / "a.geojson", rectangle("ruby", 0, 0, 4, 2) + "," +
                                       rectangle("lead", 3, 0, 6, 2) + "," +
                                       rectangle("ruby?", 0, 3, 2, 4));
  const Outcome run = run_tool(dir, {"measure", "a.geojson", "-o", "out", "--figures", "none"});
  CHECK(run.exit_code == 0);
  CHECK_THAT(
      run.err,
      Catch::Contains("a.geojson: 1 region is a guess, and left out; confirm them on a page "
                      "of outline") &&
          Catch::Contains("a.geojson: 2 pixels lie in regions of two classes, and have none"));
  CHECK(std::count(run.err.begin(), run.err.end(), '\n') == 2);
  const auto rows = rows_of(dir / "out/a.regions.csv");
  REQUIRE(rows.size() == 2);
  CHECK(rows[0].at("pixels") == "6");
  CHECK(rows[1].at("pixels") == "4");
}

TEST_CASE("drawn regions that make no map are refused", "[cli][drawn]") {
  const TempDir dir;
  const auto refused = [&](const std::string& file, const Words& more, const std::string& message) {
    check_error(run_tool(dir, with({"measure", file, "-o", "out"}, more)), 1, message);
    check_nothing_in(dir, "out");
  };
  write_regions(dir / "size.geojson", rectangle("ruby", 0, 0, 4, 2), "");
  write_regions(dir / "part.geojson", rectangle("ruby", 0, 0, 4, 2), R"("width":8.5,"height":4,)");
  write_regions(dir / "far.geojson", rectangle("ruby", 0, 0, 9, 2));
  write_regions(dir / "guess.geojson", rectangle("ruby?", 0, 0, 4, 2));
  for (const char* file : {"size.geojson", "part.geojson"})
    refused(file, {},
            std::string(file) +
                ": does not say the size of the picture that its regions were drawn on; draw them "
                "on a page of outline, or write its width and height into the file");
  refused("far.geojson", {}, "far.geojson: a sample of class 'ruby' reaches outside");
  refused("guess.geojson", {},
          "guess.geojson: all of its regions are guesses; confirm them on a page of outline");
  refused("size.geojson", {"--max-pixels", "9"}, "size.geojson");
  write_regions(dir / "large.geojson", rectangle("ruby", 0, 0, 4, 2));
  refused("large.geojson", {"--max-pixels", "9"},
          "large.geojson: has 8x4 pixels, more than --max-pixels 9");
}
