// `train` and `classify` at the built program: samples named on the command line, and boxes.
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

TEST_CASE("train takes samples from the command line", "[cli][train]") {
  const TempDir dir;
  write_stripes(dir / "s.png");
  const json found = summary_of(
      run_tool(dir, {"train", "s.png", "--sample", "red=0,0,8,4", "--sample", "blue=10,5",
                     "--sample", "blue=11,2,1.5", "-o", "out", "--summary", "json"}));
  CHECK(found["inputs"][0]["regions"] == 3);
  CHECK(found["inputs"][0]["samples"] == "--sample");
  CHECK(found["model"]["classes"][0]["pixels"] == 32);
  CHECK(found["model"]["classes"][1]["name"] == "blue");
  // Added to those of a file.
  put_text(dir / "s.geojson",
           R"({"type":"FeatureCollection","features":[{"type":"Feature","properties":)"
           R"({"class":"light"},"geometry":{"type":"Point","coordinates":[15.5,5.5]}}]})");
  const json both = summary_of(run_tool(dir, {"train", "s.png", "--samples", "s.geojson",
                                              "--sample", "dark=19,1", "--summary", "json"}));
  CHECK(both["model"]["classes"].size() == 2);
  CHECK(both["model"]["classes"][1]["name"] == "dark");
}

TEST_CASE("boxes leave pixels unclassified and count the contested ones", "[cli][train]") {
  const TempDir dir;
  write_stripes(dir / "s.png");
  summary_of(run_tool(dir, {"train", "s.png", "--sample", "red=0,0,8,4", "--sample", "cool=8,0,6,4",
                            "--sample", "wide=0,0,14,2", "--method", "parallelepiped", "--features",
                            "srgb", "-o", "out", "--summary", "json"}));
  const json map = summary_of(run_tool(
      dir, {"classify", "s.png", "--model", "out/model.json", "-o", "out", "--summary", "json"}));
  const json& picture = map["inputs"][0];
  CHECK(map["method"] == "parallelepiped");
  CHECK(picture["unclassified"] == 60);  // light and dark
  CHECK(picture["contested"] == 140);    // in their own box and in the wide one
  CHECK(picture["classes"][0]["pixels"] == 80);
  CHECK(picture["classes"][1]["pixels"] == 60);
  const auto text = run_tool(dir, {"classify", "s.png", "--model", "out/model.json"});
  CHECK_THAT(text.out, Catch::Contains("140 pixels in the boxes of several classes"));
  // The spread is stored and read back.
  summary_of(run_tool(dir, {"train", "s.png", "--sample", "red=0,0,8,4", "--method",
                            "parallelepiped", "--boxes", "2.5", "-o", "two", "--summary", "json"}));
  CHECK(json::parse(text_of_file(dir / "two/model.json"))["box_spread"] == 2.5);
}

TEST_CASE("train says which samples it cannot use", "[cli][train]") {
  const TempDir dir;
  write_stripes(dir / "s.png");
  write_stripes(dir / "t.png");
  const std::vector<std::pair<std::vector<std::string>, std::string>> wrong{
      {{"s.png"}, "train needs --samples or --sample"},
      {{"s.png", "--sample", "red"}, "--sample"},
      {{"s.png", "t.png", "--sample", "red=1,1"}, "--sample is a place on one picture"},
      {{"s.png", "--sample", "red=1,1", "--boxes", "2"}, "--boxes are for parallelepiped only"},
      {{"s.png", "--sample", "red=1,1", "--method", "parallelepiped", "--boxes", "0"}, "--boxes"}};
  for (const auto& [options, says] : wrong) {
    std::vector<std::string> arguments{"train", "-o", "out"};
    arguments.insert(arguments.end(), options.begin(), options.end());
    check_error(run_tool(dir, arguments), 2, says);
  }
  check_error(run_tool(dir, {"train", "s.png", "--sample", "red=30,1,4,4", "-o", "out"}), 1,
              "--sample: ");
  check_nothing_in(dir, "out");
}
