// Class maps whose numbers a byte does not hold, from training to the last table.
#include <algorithm>
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "core/pixel/label.h"
#include "tests/support/outcome.h"
#include "tests/support/pictures.h"
#include "tests/support/tool.h"

using namespace chalcedony;
using namespace chalcedony::test;
using nlohmann::json;

namespace {

constexpr unsigned kMapClasses = 300, kSquaresAcross = 20, kSquareSide = 4;
constexpr std::uint32_t kMapWidth = kSquaresAcross * kSquareSide,
                        kMapHeight = kMapClasses / kSquaresAcross * kSquareSide;

/// Squares of one class each, from the top left.
std::vector<Label> squares() {
  std::vector<Label> labels;
  for (std::uint32_t y = 0; y < kMapHeight; ++y)
    for (std::uint32_t x = 0; x < kMapWidth; ++x)
      labels.push_back(static_cast<Label>(y / kSquareSide * kSquaresAcross + x / kSquareSide + 1));
  return labels;
}

std::vector<LegendEntry> legend_of_squares() {
  std::vector<LegendEntry> entries;
  for (unsigned i = 1; i <= kMapClasses; ++i)
    entries.push_back({i, "pane " + std::to_string(i), "#336699"});
  return entries;
}

void write_squares(const std::filesystem::path& path, const std::vector<Label>& labels) {
  const PictureSpec spec = class_map_spec({kMapWidth, kMapHeight}, legend_of_squares());
  REQUIRE(spec.shape.sample == SampleType::kU16);
  write_picture(path, spec, bytes_of(labels));
}

/// Every square in a color of its own.
void write_square_colors(const std::filesystem::path& path) {
  std::vector<std::uint8_t> rgb;
  for (const Label label : squares()) {
    const int square = label - 1;
    for (const int code : {square % 20 * 13, square / 20 * 17, 128})
      rgb.push_back(static_cast<std::uint8_t>(code));
  }
  write_rgb(path, kMapWidth, kMapHeight, rgb);
}

/// The numbers of a map of 16 bits, with the list of classes it should have.
std::vector<Label> wide_labels_in(const std::filesystem::path& path) {
  PictureFile file = open_picture(path, {});
  CHECK(file.facts.legend == legend_of_squares());
  REQUIRE(file.info.shape.channels == 1);
  REQUIRE(file.info.shape.sample == SampleType::kU16);
  return samples_of<Label>(file);
}

json inputs_told(const TempDir& dir, std::vector<std::string> words) {
  words.insert(words.end(), {"--summary", "json"});
  return summary_of(run_tool(dir, words))["inputs"];
}

}  // namespace

TEST_CASE("300 classes are trained, mapped in 16 bits and assessed", "[cli][train][classify]") {
  const TempDir dir;
  write_squares(dir / "map.png", squares());
  write_square_colors(dir / "p.png");
  for (const std::string method : {"minimum-distance", "nearest-neighbor"}) {
    INFO(method);
    summary_of(run_tool(dir, {"train", "p.png", "--samples", "map.png", "--method", method, "-o",
                              method, "--figures", "none", "--summary", "json"}));
    const json found = inputs_told(dir, {"classify", "p.png", "--model", method + "/model.json",
                                         "-o", method, "--confidence"});
    CHECK(wide_labels_in(dir / method / "p.classes.png") == squares());
    const json& classes = found[0]["classes"];
    REQUIRE(classes.size() == kMapClasses);
    CHECK(std::all_of(classes.begin(), classes.end(),
                      [](const json& c) { return c["pixels"] == kSquareSide * kSquareSide; }));
    CHECK(std::filesystem::exists(dir / method / "p.classes.figure.png"));
  }
  // Groups are numbered in bytes.
  check_error(
      run_tool(dir, {"cluster", "p.png", "--model", "minimum-distance/model.json", "-o", "groups"}),
      1,
      "minimum-distance/model.json: has 300 classes, and there are at most 255 groups; map "
      "the pictures with classify");
  check_nothing_in(dir, "groups");
  const json agreement =
      summary_of(run_tool(dir, {"assess", "minimum-distance/p.classes.png", "--reference",
                                "map.png", "-o", "assessed", "--summary", "json"}));
  CHECK(agreement["inputs"][0]["overall"] == 1.0);
}

TEST_CASE("300 classes are held against each other, and thousands are not", "[cli][changes]") {
  const TempDir dir;
  const std::vector<Label> before = squares();
  write_squares(dir / "before.png", before);
  std::vector<Label> changed = before;
  for (Label& label : changed)
    if (label % 7 == 0) label = 299;
  write_squares(dir / "after.png", changed);
  const json step =
      summary_of(run_tool(dir, {"changes", "before.png", "after.png", "-o", "out", "--figures",
                                "none", "--summary", "json"}))["inputs"][0]["steps"][0];
  constexpr unsigned kSquare = kSquareSide * kSquareSide;
  CHECK(step["changed"] == 300 / 7 * kSquare);
  CHECK(step["classes"][298]["gained"] == 300 / 7 * kSquare);
  PictureFile file = open_picture(dir / "out/changed.png", {});
  REQUIRE(file.info.shape.sample == SampleType::kU16);
  CHECK(file.facts.legend[299].name == "now pane 299");
  const std::vector<Label> labels = samples_of<Label>(file);
  for (std::size_t i = 0; i < labels.size(); ++i)
    REQUIRE(labels[i] == (changed[i] == before[i] ? 1 : 300));
  std::vector<LegendEntry> thousands;
  for (unsigned i = 1; i <= 4097; ++i)
    thousands.push_back({i, "shard " + std::to_string(i), "#336699"});
  const PictureSpec spec = class_map_spec({2, 1}, thousands);
  write_picture(dir / "shards.png", spec, bytes_of(std::vector<Label>{1, 2}));
  check_error(run_tool(dir, {"changes", "shards.png", "shards.png", "-o", "none"}), 1,
              "shards.png: there are more than 4096 classes with those of this map; give maps of "
              "fewer classes");
  CHECK_FALSE(std::filesystem::exists(dir / "none"));
}

TEST_CASE("300 classes are measured, cleaned, reframed and chosen", "[cli][measure][tidy]") {
  const TempDir dir;
  write_squares(dir / "map.png", squares());
  write_square_colors(dir / "p.png");
  const json regions = inputs_told(dir, {"measure", "map.png", "-o", "out"});
  CHECK(regions[0]["count"] == kMapClasses);
  CHECK(regions[0]["classes"][kMapClasses - 1]["name"] == "pane 300");
  CHECK(regions[0]["classes"][kMapClasses - 1]["pixels"] == kSquareSide * kSquareSide);
  CHECK(std::filesystem::exists(dir / "out/map.regions.figure.png"));

  // A pixel of another square in each goes; those in the middle have most neighbors of their own.
  std::vector<Label> specks = squares();
  for (unsigned square = 0; square < kMapClasses; ++square) {
    const std::size_t x = square % kSquaresAcross * kSquareSide + 1,
                      y = square / kSquaresAcross * kSquareSide + 1;
    specks[y * kMapWidth + x] = static_cast<Label>((square + 150) % kMapClasses + 1);
  }
  write_squares(dir / "specks.png", specks);
  const json cleaned =
      inputs_told(dir, {"tidy", "specks.png", "--steps", "majority 1", "-o", "out"});
  CHECK(cleaned[0]["changed"] == kMapClasses);
  CHECK(wide_labels_in(dir / "out/specks.tidy.png") == squares());

  run_tool(dir, {"reframe", "map.png", "--turn", "180", "-o", "turned.tif"});
  std::vector<Label> turned = squares();
  std::reverse(turned.begin(), turned.end());
  CHECK(wide_labels_in(dir / "turned.tif") == turned);

  const json selected = inputs_told(
      dir, {"mask", "p.png", "--where", "gray >= 0", "--within", "map.png:pane 299,pane 300"});
  CHECK(selected[0]["selected"] == 2 * kSquareSide * kSquareSide);
}

TEST_CASE("numbers above 255 need a list of classes, and one that is sound", "[cli][measure]") {
  const TempDir dir;
  PictureSpec spec = class_map_spec({kMapWidth, kMapHeight}, {});
  spec.shape.sample = SampleType::kU16;
  write_picture(dir / "numbers.png", spec, bytes_of(squares()));
  for (const std::string command : {"measure", "tidy"}) {
    std::vector<std::string> words{command, "numbers.png", "-o", "out"};
    if (command == "tidy") words.insert(words.end(), {"--steps", "fill"});
    check_error(
        run_tool(dir, words), 1,
        "numbers.png: has the number 260, above 255, and no list of classes; give a class map");
    check_nothing_in(dir, "out");
  }
  for (const unsigned index : {0u, 70000u}) {
    spec.legend = {{index, "pane", "#336699"}};
    write_picture(dir / "bad.png", spec, bytes_of(squares()));
    check_error(run_tool(dir, {"measure", "bad.png", "-o", "out"}), 1,
                "its list of classes is damaged; write the class map again");
    check_nothing_in(dir, "out");
  }
}
